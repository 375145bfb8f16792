import type { AllocationProblem, LinePlace } from '../allocate/problem.ts';
import type { SwitchingMeans } from '../model/rig.ts';

/** An allocation as reference files write it. */
export interface AllocationInputs {
  readonly order: readonly string[];
  readonly pieces: Readonly<
    Record<
      string,
      { readonly line?: LinePlace; readonly means?: readonly SwitchingMeans[]; readonly powerup?: 'on' | 'off' }
    >
  >;
  readonly switcher: { readonly loops: number; readonly insert_after?: number };
  readonly sounds: Readonly<
    Record<
      string,
      { readonly on?: readonly string[]; readonly any?: readonly string[]; readonly tolerates?: readonly string[] }
    >
  >;
  readonly set: readonly string[];
  readonly frozen?: boolean;
}

export interface AllocationCase {
  readonly id: string;
  readonly inputs: AllocationInputs;
  readonly expected: { readonly optimum: readonly number[] | 'none'; readonly min_loops: number | 'none' };
}

export const allocationOf = ({
  order,
  pieces,
  switcher,
  sounds,
  set,
  frozen,
}: AllocationInputs): AllocationProblem => ({
  pieces: order.map((name) => {
    const { line, means = [], powerup } = pieces[name];
    return { name, means, isOnAtPowerUp: powerup === 'on', ...(line ? { line } : {}) };
  }),
  loops: switcher.loops,
  insertAfter: switcher.insert_after ?? null,
  sounds: Object.entries(sounds).map(([name, { on = [], any = [], tolerates = [] }]) => ({ name, on, any, tolerates })),
  set,
  isFrozen: frozen ?? false,
});
