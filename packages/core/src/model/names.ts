import type { Rig } from './rig.ts';

/** A readable id that is not taken yet: made from a name. */
export function freshId(name: string, taken: Readonly<Record<string, unknown>>, fallback: string): string {
  const plain =
    name
      .normalize('NFKD')
      .replace(/\p{M}/gu, '')
      .toLowerCase()
      .replace(/[^a-z0-9]+/g, '-')
      .replace(/^-+/, '')
      .slice(0, 40)
      .replace(/-+$/, '') || fallback;
  for (let n = 1; ; n += 1) {
    const id = n === 1 ? plain : `${plain}-${n}`;
    if (!Object.hasOwn(taken, id) && id !== 'constructor' && id !== 'prototype') return id;
  }
}

/** The id of a cable more: they are counted. */
export function freshCableId({ cables }: Pick<Rig, 'cables'>): string {
  for (let n = Object.keys(cables).length + 1; ; n += 1) if (!Object.hasOwn(cables, `cable-${n}`)) return `cable-${n}`;
}

/** `Drive`, `Drive 2`, `Drive 3`, …: the first that nothing is called. */
export function freshName(name: string, taken: readonly string[]): string {
  for (let n = 1; ; n += 1) {
    const tried = n === 1 ? name : `${name} ${n}`;
    if (!taken.includes(tried)) return tried;
  }
}

/** The first receive channel that no device has; 1 where all are taken. */
export function freeChannel({ devices }: Pick<Rig, 'devices'>): number {
  const taken = new Set(Object.values(devices).map((device) => device.channel));
  return Array.from({ length: 16 }, (_, i) => i + 1).find((channel) => !taken.has(channel)) ?? 1;
}
