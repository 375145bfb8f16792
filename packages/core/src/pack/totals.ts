import type { Device } from '../model/rig.ts';

/** What some pieces weigh, need and cost together. */
export interface Totals {
  readonly pieces: number;
  /** Pieces that need an output of a supply. */
  readonly loads: number;
  readonly grams: number;
  /** Pieces whose weight nobody has said. */
  readonly unweighed: number;
  readonly price: readonly [low: number, high: number];
  /** Pieces whose price nobody has said. */
  readonly unpriced: number;
  /** Whether a weight is a typical one. */
  readonly isTypical: boolean;
}

export function totalsOf(devices: readonly Device[]): Totals {
  const types = devices.map(({ type }) => type);
  const sum = (of: (type: Device['type']) => number | undefined): number =>
    types.reduce((total, type) => total + (of(type) ?? 0), 0);
  return {
    pieces: devices.length,
    loads: types.filter(({ power }) => power?.needs !== undefined).length,
    grams: sum(({ body }) => body?.grams),
    unweighed: types.filter(({ body }) => body?.grams === undefined).length,
    price: [sum(({ buy }) => buy?.low ?? buy?.high), sum(({ buy }) => buy?.high ?? buy?.low)],
    unpriced: types.filter(({ buy }) => buy?.low === undefined && buy?.high === undefined).length,
    isTypical: types.some(({ body }) => body?.grams !== undefined && body.from === 'typical'),
  };
}
