import type { DeviceType } from '../model/rig.ts';

/** A generic device type with typical values, found by typing any of its words. */
export interface CatalogueEntry {
  readonly type: DeviceType;
  readonly words: string;
  /** What people say when they mean just this one. */
  readonly aliases: readonly string[];
  readonly place: string;
  /** Where its typical values come from. */
  readonly source: string;
  /** Receive channel that a new one is given; null: none. */
  readonly listens: boolean;
}

export const entry = (
  id: string,
  name: string,
  archetype: string,
  words: string,
  place = 'board',
  params: DeviceType['params'] = {},
  listens = false,
): CatalogueEntry => ({
  type: { id, revision: 1, name, archetype, params },
  words: `${name} ${words.replaceAll('!', '')}`.toLowerCase(),
  aliases: [...words.matchAll(/!(\S+)/g)].map(([, word]) => word.toLowerCase()),
  place,
  listens,
  source: 'common practice',
});
