/** An act that is not begun again while it is under way: pressed twice is meant once. */
export function once<Told extends unknown[]>(act: (...told: Told) => Promise<void>): (...told: Told) => Promise<void> {
  let underway = false;
  return async (...told) => {
    if (underway) return;
    underway = true;
    try {
      await act(...told);
    } finally {
      underway = false;
    }
  };
}
