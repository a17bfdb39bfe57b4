import { number } from 'yup';

interface Ranged {
  readonly name: string;
  readonly symbol: string;
  readonly least: number;
  readonly most: number;
}

/** A number with its range, refused in the words of its parameter. */
export function ranged({ least, most, symbol, name: spoken }: Ranged) {
  const wrong = `${spoken} must lie between ${least} and ${most} ${symbol}`.trimEnd() + ' — got ${value}';
  const unit = symbol && ` in ${symbol}`;
  return number()
    .typeError(`${spoken} must be a number${unit} — got “\${originalValue}”`)
    .required(`${spoken} is missing: type it${unit}`)
    .min(least, wrong)
    .max(most, wrong);
}
