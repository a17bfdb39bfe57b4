/** Whatever turns on the stand. */
export const spinning = [
  'Guard on, no sleeve, ring or glove near the pulley.',
  'Never take the battery off while it turns.',
];
