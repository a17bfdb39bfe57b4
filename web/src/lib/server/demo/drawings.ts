/** Drawn stand-ins for what a camera would show of the demo's units. */

const drawing = (inside: string): string =>
  `<svg xmlns="http://www.w3.org/2000/svg" width="960" height="720" viewBox="0 0 960 720">
  <rect width="960" height="720" fill="#b9b4aa"/>${inside}</svg>`;

/** One third of the windings dark: the phase that carried too much. */
const darkThird = (): string => {
  const coils = Array.from({ length: 36 }, (_, i) => {
    const turn = (i * 360) / 36;
    const colour = i >= 6 && i < 18 ? '#2b1d12' : '#b4622a';
    return `<g transform="rotate(${turn} 480 360)"><rect x="460" y="96" width="40" height="92" rx="18" fill="${colour}" stroke="#1d1712" stroke-width="3"/></g>`;
  });
  return drawing(
    `<circle cx="480" cy="360" r="310" fill="#6d6a66"/><circle cx="480" cy="360" r="222" fill="#4b4844"/>${coils.join('')}<circle cx="480" cy="360" r="168" fill="#d8d3c8"/>`,
  );
};

/** Two rings, the outer one with a burnt track. */
const burntRings = (): string => {
  const marks = Array.from(
    { length: 14 },
    (_, i) =>
      `<rect x="${390 + ((i * 37) % 60)}" y="${150 + i * 30}" width="${24 + ((i * 13) % 22)}" height="12" rx="5" fill="#20150d"/>`,
  );
  return drawing(
    `<rect x="90" y="300" width="780" height="120" fill="#8d8a85"/>
     <rect x="380" y="120" width="100" height="480" rx="10" fill="#c77f3f"/>${marks.join('')}
     <rect x="540" y="120" width="100" height="480" rx="10" fill="#d99a5b"/>
     <rect x="640" y="90" width="180" height="540" rx="20" fill="#57534e"/>`,
  );
};

export const demoDrawings = { 'dark third': darkThird, 'burnt rings': burntRings } as const;
