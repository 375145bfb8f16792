export interface Tortured {
  readonly kills: { readonly server: number; readonly database: number; readonly both: number };
  readonly acknowledged: number;
  readonly requests: number;
  readonly lost: number;
  readonly doubled: number;
  readonly corrupt: number;
  readonly torn: number;
  readonly faults: readonly string[];
  /** Milliseconds. */
  readonly longestFreeze: number;
}
export const mostFreeze: number;
export function torture(options?: { readonly kills?: number; readonly restores?: number; readonly requests?: number; readonly seed?: number; readonly tell?: (line: string) => void }): Promise<Tortured>;
export function isGood(result: Tortured): boolean;
