import type { EffectKind } from '../anatomy.ts';
import type { Params } from './archetype.ts';
import { idOf } from './common.ts';
import { effectNamed } from './effect-named.ts';

/** The things inside a modeller, read from its parameters. */
export interface ModellerParts {
  readonly blocks: readonly Block[];
  readonly parameters: readonly Named[];
  readonly assignments: readonly Assignment[];
  readonly states: number;
}

export interface Named {
  readonly id: string;
  readonly name: string;
}

/** A block of the line, or a loop that stands in it like one. */
export interface Block extends Named {
  readonly effect: EffectKind;
  /** The number of the loop, where it is one. */
  readonly loop: number | undefined;
  /** The controls that have it on: one, or one for each state inside a preset. */
  readonly switches: readonly string[];
}

/** What one press, or one message, moves between two stored values, where the preset has it armed. */
export interface Assignment extends Named {
  readonly armed: string;
  /** The switch that it is on. */
  readonly on: number;
  /** Names of blocks and parameters. */
  readonly moves: readonly string[];
}

export const placeOf = ({ id }: Named): string => `${id}-place`;
export const sideOf = ({ id }: Named): string => `${id}-side`;

export function blocksOf(p: Params): readonly Block[] {
  const states = p.int('states');
  const block = (name: string, loop?: number): Block => {
    const id = loop === undefined ? `block-${idOf(name)}` : `loop-${loop}`;
    return {
      id,
      name,
      effect: loop === undefined ? effectNamed(name) : 'other',
      loop,
      switches: states === 1 ? [id] : Array.from({ length: states }, (_, i) => `${id}-in-${i + 1}`),
    };
  };
  const count = p.int('loops');
  // A loop stands where the list names it; one that it does not name comes last.
  const loopNamed = (name: string): number | undefined => {
    const number = Number(/^loop (\d+)$/i.exec(name)?.[1]);
    return number >= 1 && number <= count ? number : undefined;
  };
  const listed = p.words('blocks').map((name) => block(name, loopNamed(name)));
  const others = Array.from({ length: count }, (_, i) => i + 1).filter(
    (loop) => !listed.some((each) => each.loop === loop),
  );
  return [...listed, ...others.map((loop) => block(`Loop ${loop}`, loop))];
}

export const parametersOf = (p: Params): readonly Named[] =>
  p.words('parameters').map((name) => ({ id: `value-${idOf(name)}`, name }));

/** *Solo: Drive, Delay mix*; *Solo @ 2: …* where it is on the second switch. */
export const assignmentsOf = (p: Params): readonly Assignment[] =>
  p.words('assignments').map((written, i) => {
    const [head, ...tail] = written.split(':');
    const placed = /^(.*?)@\s*(\d{1,2})\s*$/.exec(head);
    const name = (placed?.[1] ?? head).trim();
    const moves = tail
      .join(':')
      .split(',')
      .map((part) => part.trim())
      .filter((part) => part !== '');
    return {
      id: `move-${idOf(name)}`,
      armed: `armed-${idOf(name)}`,
      name,
      on: placed ? Number(placed[2]) : 100 + i,
      moves,
    };
  });

/** Whether a thing’s setting is kept by each preset rather than by the unit. */
export const isStored = (p: Params, name: string): boolean =>
  !p.words('global').some((other) => other.toLowerCase() === name.toLowerCase());
