import type { Board } from '@yunta/core';

type Tier = NonNullable<Board['tiers']>[number];

/** `250–400: 60; 0–100: 55`: bands from the front with the height that is free there; undefined where it is not so. */
export function tiersTyped(typed: string): readonly Tier[] | undefined {
  const parts = typed.split(/\s*[;\n]\s*/).filter((part) => part.trim() !== '');
  const tiers = parts.map((part) => {
    const found = /^(\d{1,4})\s*[–—-]\s*(\d{1,4})\s*[:=]\s*(\d{1,4})(?:\s*mm)?$/.exec(part.trim());
    if (!found) return undefined;
    const [from, to, height] = found.slice(1).map(Number);
    return from < to ? { from, to, height } : undefined;
  });
  return tiers.includes(undefined) ? undefined : (tiers as Tier[]);
}

export const tiersWords = (tiers: readonly Tier[]): string =>
  tiers.map(({ from, to, height }) => `${from}–${to}: ${height}`).join('; ');
