import type { SupplyJoin, SupplyProblem } from '../supply/problem.ts';

/** A supply and its loads as reference files write them. */
export interface SupplyInputs {
  readonly outputs: Readonly<
    Record<
      string,
      {
        readonly volts: Readonly<Record<string, number>>;
        readonly kind?: 'dc' | 'ac';
        readonly centre?: '-' | '+';
        readonly plug?: string;
        readonly rail?: string;
      }
    >
  >;
  readonly limits?: readonly { readonly outputs: readonly string[]; readonly ma?: number; readonly va?: number }[];
  readonly joins?: readonly { readonly outputs: readonly [string, string]; readonly how: SupplyJoin['how'] }[];
  readonly loads: Readonly<
    Record<
      string,
      {
        readonly volts: readonly [number, number];
        readonly ma: number;
        readonly kind?: 'dc' | 'ac';
        readonly centre?: '-' | '+' | 'any';
        readonly plug?: string;
        readonly digital?: boolean;
        readonly earth?: '-' | '+';
        readonly battery?: boolean;
      }
    >
  >;
  readonly leads?: { readonly reversing?: number; readonly adapter?: number; readonly chains?: readonly number[] };
}

export interface SupplyCase {
  readonly id: string;
  readonly inputs: SupplyInputs;
  readonly expected: { readonly optimum: readonly number[]; readonly conflict: number };
}

export const supplyOf = ({ outputs, limits = [], joins = [], loads, leads = {} }: SupplyInputs): SupplyProblem => ({
  outputs: Object.entries(outputs).map(([name, { volts, kind = 'dc', centre = '-', plug = 'barrel', rail }]) => ({
    name,
    choices: Object.entries(volts).map(([at, ma]) => ({ volts: Number(at), ma })),
    kind,
    centre,
    plug,
    rail: rail ?? null,
  })),
  limits: limits.map((limit) => ({
    outputs: limit.outputs,
    most: limit.va === undefined ? { ma: limit.ma! } : { va: limit.va },
  })),
  joins,
  loads: Object.entries(loads).map(([name, load]) => ({
    name,
    volts: load.volts,
    ma: load.ma,
    kind: load.kind ?? 'dc',
    centre: load.centre ?? '-',
    plug: load.plug ?? 'barrel',
    isDigital: load.digital ?? false,
    earth: load.earth ?? '-',
    mayUseBattery: load.battery ?? false,
  })),
  leads: { reversing: leads.reversing ?? 0, adapter: leads.adapter ?? 0, chains: leads.chains ?? [] },
});
