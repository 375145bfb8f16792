/** What a switcher’s own controls are called inside. */
export const loopId = (i: number): string => `loop-${i}`;
export const placeId = (i: number): string => `place-${i}`;
