import { catalogue, type CatalogueEntry, findTypes } from '../catalogue/types.ts';
import type { Anatomy } from '../model/anatomy.ts';
import { anatomyOf, archetypeOf } from '../model/archetypes/registry.ts';
import { jacksOf } from '../model/jacks.ts';
import { type Carries, jackFacts } from '../model/jack-kinds.ts';

/** The type that words mean. */
export interface TypeGuess {
  readonly entry: CatalogueEntry;
  /** What else fits, in the order of how well. */
  readonly others: readonly CatalogueEntry[];
  /** Whether the words are the type's very name. */
  readonly isSure: boolean;
}

/**
 * `drive soft` is a drive, `6 loop switcher` a switcher of six loops; undefined where no word of it is a type's.
 * Of types that fit alike, the first that takes what the text sends to it (MIDI, a contact, both sides).
 */
export function guessType(
  typed: string,
  takes: ReadonlySet<Taken> = nothing,
  library: readonly CatalogueEntry[] = catalogue,
): TypeGuess | undefined {
  const words = typed.trim().split(/\s+/);
  const counted = countedLoops(typed);
  for (let length = words.length; length > 0; length -= 1)
    for (let from = 0; from + length <= words.length; from += 1) {
      const part = words.slice(from, from + length).join(' ');
      if (!/\p{L}/u.test(part) || saysNothing(part)) continue;
      const found = findTypes(part, library);
      if (found.length === 0) continue;
      const able = found.find(({ type }) => takesIn(jacksOf(type), takes)) ?? found[0];
      const best = counted === undefined ? able : (withLoops(found, counted) ?? able);
      return {
        entry: best,
        others: found.filter((entry) => entry !== best),
        isSure: best.type.name.toLowerCase() === typed.trim().toLowerCase(),
      };
    }
  return undefined;
}

/** What is sent into a piece, or that both sides go through it. */
export type Taken = Carries | 'stereo';
const nothing: ReadonlySet<Taken> = new Set();

const takesIn = (jacks: Anatomy['jacks'], takes: ReadonlySet<Taken>): boolean =>
  [...takes].every((taken) =>
    taken === 'stereo'
      ? jacks.some((jack) => jack.stereo === true || jack.side === 'right')
      : jacks.some((jack) => jackFacts(jack.kind).carries === taken && jackFacts(jack.kind).direction === 'in'),
  );

/** Words that many types have and that tell none. */
const common = new Set('box pedal unit device presets time high low one two three own level input output'.split(' '));
const saysNothing = (words: string): boolean =>
  words
    .toLowerCase()
    .split(' ')
    .every((word) => common.has(word));

/** `6 loops`, `6-loop`: how many. */
const countedLoops = (typed: string): number | undefined => {
  const found = /\b(\d{1,3})[\s-]*loops?\b/i.exec(typed);
  return found ? Number(found[1]) : undefined;
};

/** The type of so many loops: one of the catalogue, else one made for it. */
function withLoops(found: readonly CatalogueEntry[], loops: number): CatalogueEntry | undefined {
  const switchers = found.filter((entry) => entry.type.archetype === 'loop-switcher');
  const exact = switchers.find((entry) => anatomyOf(entry.type).controller!.loops.length === loops);
  if (exact || switchers.length === 0) return exact;
  const spec = archetypeOf('loop-switcher')!.params.loops;
  if (spec.kind !== 'integer' || loops < spec.min || loops > spec.max) return undefined;
  const like = switchers[0];
  return {
    ...like,
    type: {
      ...like.type,
      id: `switcher-${loops}`,
      name: `Loop switcher, ${loops} loops`,
      params: { ...like.type.params, loops },
    },
  };
}
