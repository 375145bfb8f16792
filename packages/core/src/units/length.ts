/** Metres in a foot: exactly 0.3048 (international yard and pound agreement, 1959). */
export const metresInFoot = 0.3048;

/** A length in metres as a number of a unit, to the hundredth; feet typed whole come back whole. */
export const lengthIn = (metres: number, unit: 'm' | 'ft' | undefined): number =>
  unit === 'ft' ? Math.round((metres / metresInFoot) * 100) / 100 : metres;

/** With its unit: *6 m*, *20 ft*. */
export const lengthLabel = (metres: number, unit: 'm' | 'ft' | undefined): string =>
  `${lengthIn(metres, unit)} ${unit ?? 'm'}`;
