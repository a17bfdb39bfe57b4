/**
 * Program messages as IEEE 488.2-1992 section 7 has them: units with semicolons between, each a header and parameters
 * with commas between. Text in quotation marks and expressions in parentheses keep their separators.
 */
export interface MessageUnit {
  /** As written, without the white space around it. */
  readonly header: string;
  readonly parameters: readonly string[];
}

/** Splits at a separator outside of quotes and parentheses. */
function splitAt(text: string, separator: string): string[] {
  const parts: string[] = [];
  let [from, depth, quote] = [0, 0, ''];
  for (let at = 0; at < text.length; at++) {
    const letter = text[at]!;
    if (quote) {
      if (letter === quote) quote = '';
    } else if (letter === '"' || letter === "'") quote = letter;
    else if (letter === '(') depth++;
    else if (letter === ')') depth--;
    else if (letter === separator && depth === 0) {
      parts.push(text.slice(from, at));
      from = at + 1;
    }
  }
  parts.push(text.slice(from));
  return parts.map((part) => part.trim());
}

/** The units of one message; empty ones are nothing. */
export function unitsOf(message: string): MessageUnit[] {
  return splitAt(message, ';')
    .filter((unit) => unit !== '')
    .map((unit) => {
      const [header] = /^\S+/.exec(unit)!;
      const rest = unit.slice(header.length).trim();
      return { header, parameters: rest === '' ? [] : splitAt(rest, ',') };
    });
}

/** Text in quotation marks of either kind; a doubled mark is one. Undefined for anything else. */
export function stringOf(parameter: string): string | undefined {
  const quote = parameter[0];
  if ((quote !== '"' && quote !== "'") || parameter.length < 2 || !parameter.endsWith(quote)) return undefined;
  return parameter.slice(1, -1).replaceAll(quote + quote, quote);
}
