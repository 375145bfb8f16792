/** A figure as it is shown, with where it comes from. */
export interface Evidence {
  /** What it is. */
  readonly of: string;
  /** The figure with its unit. */
  readonly value: string;
  readonly inputs: readonly (readonly [name: string, value: string])[];
  readonly formula: string;
  readonly source: string;
  /** Whether it rests on typical values of a type, on what was entered for this rig, or on nothing assumed. */
  readonly rests: 'typical' | 'entered' | 'exact';
}

export const counted = (count: number, text: string, several = `${text}s`): string =>
  `${count.toLocaleString('en')} ${count === 1 ? text : several}`;
