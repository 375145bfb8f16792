/** Figures as they are shown: no more places than they are good for. */

/** To a tenth, without a nought behind the point: `12`, `12.5`. */
export const tenths = (value: number): string => String(Math.round(value * 10) / 10);

/** To a hundredth; sums of decimals would show what floating point leaves. */
export const hundredths = (value: number): number => Math.round(value * 100) / 100;

export const kilograms = (grams: number): string => `${(grams / 1000).toFixed(1)} kg`;
