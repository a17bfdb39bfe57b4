/**
 * A header pattern as SCPI manuals print it, `[SENSe:]RESistance:RANGe[:UPPer]`: capitals are the short form, the whole
 * word the long one, nothing between them; brackets may be left out; upper and lower case are the same (SCPI-1999
 * volume 1, 6.2.1).
 */
export function headerPattern(pattern: string): RegExp {
  const source = pattern.replaceAll(/[A-Za-z]+|\[|\]|\?|\*/g, (token) => {
    if (token === '[') return '(?:';
    if (token === ']') return ')?';
    if (token === '?' || token === '*') return `\\${token}`;
    const short = token.replace(/[a-z]+$/, '');
    return short === token ? token : `(?:${short}|${token})`;
  });
  return new RegExp(`^${source}$`, 'i');
}

/** Whether a word is the mnemonic, in its short or its long form. */
export const isWord = (word: string, mnemonic: string): boolean => headerPattern(mnemonic).test(word);

/**
 * The full header of a unit that follows another in one message: without a colon before it, it begins where the last
 * one's last node stood (SCPI-1999 volume 1, 6.2.4). Common commands (with an asterisk) leave that place as it is.
 */
export function fullHeader(header: string, path: string): { full: string; path: string } {
  if (header.startsWith('*')) return { full: header, path };
  const full = header.startsWith(':') ? header.slice(1) : path + header;
  return { full, path: full.slice(0, full.lastIndexOf(':') + 1) };
}
