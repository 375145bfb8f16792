import type { Brand } from '../../units/brand.ts';

/** A variable of a state model, by its number. */
export type VariableId = Brand<number, 'variable'>;
/** Stands where there is no such variable. */
export const noVariable: VariableId = -1;

/** A value of a variable, by its number: the same number for the same value, whichever the variable. */
export type ValueId = Brand<number, 'value'>;
/** Stands where no one value is known. */
export const noValue: ValueId = -1;
