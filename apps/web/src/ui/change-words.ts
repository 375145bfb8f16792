import type { Step } from '@yunta/core';

const things: Readonly<Record<string, readonly [one: string, many: string]>> = {
  devices: ['device', 'devices'],
  cables: ['cable', 'cables'],
  sounds: ['sound', 'sounds'],
  slots: ['slot', 'slots'],
  casting: ['part’s slot', 'parts’ slots'],
  places: ['place', 'places'],
  songs: ['song', 'songs'],
  parts: ['part', 'parts'],
  setLists: ['set list', 'set lists'],
};

/** What steps change, counted by kind: *2 sounds, 1 cable and the settings*. */
export function changeWords(steps: readonly Pick<Step, 'at'>[]): string {
  const touched = new Map<string, Set<string>>();
  for (const { at } of steps) {
    const kind = Object.hasOwn(things, at[0]) ? at[0] : at[0] === 'name' ? 'name' : 'settings';
    touched.set(kind, (touched.get(kind) ?? new Set()).add(at[1] ?? ''));
  }
  const words = [...touched].map(([kind, ids]) => {
    if (!Object.hasOwn(things, kind)) return kind === 'name' ? 'the name' : 'the settings';
    return `${ids.size} ${things[kind][ids.size === 1 ? 0 : 1]}`;
  });
  return words.length < 2 ? words.join('') : `${words.slice(0, -1).join(', ')} and ${words.at(-1)}`;
}
