import type { Anatomy, Control, ControlValue, Insert, Jack, Section, StoredOrder } from '../anatomy.ts';
import type { Archetype, Params } from './archetype.ts';
import { insertJacks, signalIn, signalOut, value } from './common.ts';
import { type Ends, endsOf, throughSections } from './stereo.ts';
import { loopId, placeId } from './switcher-ids.ts';

/** What each slot of a switcher may store beside its loops. */
export const switcherRoutingParams: Archetype['params'] = {
  order: { kind: 'choice', values: ['fixed', 'by slot'], default: 'fixed', label: 'The order of the loops is' },
  inputs: { kind: 'integer', min: 1, max: 4, default: 1, label: 'Inputs, one of them by slot' },
  outputs: { kind: 'integer', min: 1, max: 4, default: 1, label: 'Outputs, by slot' },
  severalOutputs: { kind: 'boolean', default: false, label: 'Several outputs at once' },
  outputGain: { kind: 'integer', min: 0, max: 20, default: 0, label: 'Output gain by slot up to, dB (0: none)' },
  mute: { kind: 'boolean', default: false, label: 'Mute by slot' },
  tunerTap: { kind: 'boolean', default: false, label: 'Tuner output' },
  tailsFrom: { kind: 'integer', min: 0, max: 200, default: 0, label: 'Tails kept from loop (0: cut)' },
};

/** The signal part of a switcher: what is plugged in, what joins it, and what a slot stores of it. */
export interface SwitcherRouting {
  readonly jacks: readonly Jack[];
  readonly sections: readonly Section[];
  readonly controls: readonly Control[];
  readonly orders: readonly StoredOrder[];
  readonly inserts: readonly Insert[];
}

export function routingOf(p: Params, numbers: readonly number[]): SwitcherRouting {
  const isBySlot = p.word('order') === 'by slot' && numbers.length > 1;
  return {
    jacks: jacksOf(p, numbers),
    sections: sectionsOf(p, numbers, isBySlot),
    controls: controlsOf(p, numbers, isBySlot),
    orders: isBySlot
      ? [
          {
            id: 'order',
            label: 'Order of the loops',
            of: numbers.map((i) => ({ control: placeId(i), name: String(i) })),
          },
        ]
      : [],
    inserts: p.int('insertAfter') > 0 ? [{ send: 'insert-send', return: 'insert-return' }] : [],
  };
}

/** A letter for each input or output: A, B, C. */
const letters = (count: number): readonly string[] => Array.from({ length: count }, (_, i) => 'ABCD'[i]);
/** The first keeps the name that it has where it is alone. */
const inputId = (i: number): string => (i === 0 ? 'in' : `in-${i + 1}`);
const outputId = (i: number): string => (i === 0 ? 'out' : `out-${i + 1}`);
const hasInputs = (p: Params): boolean => p.int('inputs') > 1;
const hasOutputs = (p: Params): boolean => p.int('outputs') > 1;

function controlsOf(p: Params, numbers: readonly number[], isBySlot: boolean): readonly Control[] {
  const stored = (
    id: string,
    label: string,
    domain: Control['domain'],
    first: ControlValue,
    weight?: Control['weight'],
  ): Control => ({
    id,
    label,
    domain,
    scope: 'slot',
    powerUp: value(first),
    owner: 'programmed',
    ...(weight ? { weight } : {}),
  });
  const outputs = letters(p.int('outputs'));
  return [
    ...(isBySlot
      ? numbers.map((i) => stored(placeId(i), `Place of loop ${i}`, { kind: 'position', count: numbers.length }, i))
      : []),
    ...(hasInputs(p) ? [stored('input', 'Input', { kind: 'choice', values: letters(p.int('inputs')) }, 'A')] : []),
    ...(!hasOutputs(p)
      ? []
      : p.yes('severalOutputs')
        ? outputs.map((letter, i) => stored(outputId(i), `Output ${letter}`, { kind: 'switch' }, i === 0 ? 1 : 0))
        : [stored('output', 'Output', { kind: 'choice', values: outputs }, 'A')]),
    ...(p.int('outputGain') > 0
      ? [stored('gain', 'Output gain', { kind: 'range', min: 0, max: p.int('outputGain') }, 0, 'level')]
      : []),
    ...(p.yes('mute') ? [stored('mute', 'Mute', { kind: 'switch' }, 0, 'mute')] : []),
  ];
}

/** Whether the line is stereo before and after a loop, and whether the loop sends so. */
function widthAt(
  p: Params,
  i: number,
  isBySlot: boolean,
): { readonly send: boolean; readonly back: boolean; readonly after: boolean } {
  const from = p.int('stereoFrom');
  const isStereo = from > 0 && i >= from;
  const send = isStereo && (i !== from || p.word('firstStereoSend') === 'stereo');
  // Where any loop may come first, the line is stereo throughout as soon as one of them is.
  return { send, back: isStereo, after: isBySlot ? from > 0 : isStereo };
}

const isStereoIn = (p: Params): boolean => p.int('stereoFrom') === 1 && p.word('firstStereoSend') === 'stereo';

function jacksOf(p: Params, numbers: readonly number[]): Jack[] {
  const inputs = letters(p.int('inputs')).flatMap((letter, i) =>
    signalsOf(signalIn(inputId(i), hasInputs(p) ? `In ${letter}` : 'In'), isStereoIn(p)),
  );
  const outputs = letters(p.int('outputs')).flatMap((letter, i) =>
    signalsOf(signalOut(outputId(i), hasOutputs(p) ? `Out ${letter}` : 'Out'), p.int('stereoFrom') > 0),
  );
  return [
    ...inputs,
    ...(p.yes('tunerTap') ? [signalOut('tuner', 'Tuner')] : []),
    ...numbers.flatMap((i) => {
      const { send, back } = widthAt(p, i, false);
      return [
        ...signalsOf(signalOut(`send-${i}`, `Send ${i}`), send),
        ...signalsOf(signalIn(`return-${i}`, `Return ${i}`), back),
      ];
    }),
    ...(p.int('insertAfter') > 0
      ? insertJacks(
          signalOut('insert-send', 'Insert send'),
          signalIn('insert-return', 'Insert return'),
          p.word('insert') === 'one socket',
        )
      : []),
    ...outputs,
  ];
}

const signalsOf = (jack: Jack, isStereo: boolean): readonly Jack[] => endsOf(jack, isStereo).jacks;

/** A point inside: one wire, or two where the line is stereo there. */
const bus = (id: string, isStereo: boolean): Ends => ({
  jacks: [],
  left: `*${id}`,
  right: isStereo ? `*${id}-right` : undefined,
});

/** Both sides from one point or jack pair to another; what is one wire goes to both. */
const wires = (from: Ends, to: Ends, id: string, label: string, when?: Section['when']): readonly Section[] =>
  from.right === undefined && to.right === undefined
    ? [wire(id, label, from.left, to.left, when)]
    : throughSections(
        { input: from, output: to },
        { id, label, active: false, ...(when ? { when } : {}) },
        { sums: false },
      );

const wire = (id: string, label: string, from: string, to: string, when?: Section['when']): Section => ({
  id,
  label,
  from,
  to,
  active: false,
  when,
});

const only = (control: string, ...values: readonly ControlValue[]): NonNullable<Section['when']> => ({
  controls: { [control]: values },
});

function sectionsOf(p: Params, numbers: readonly number[], isBySlot: boolean): Anatomy['sections'] {
  const sections: Section[] = [];
  const add = (...more: readonly Section[]) => void sections.push(...more);
  let at = bus('bus0', isStereoIn(p));
  letters(p.int('inputs')).forEach((letter, i) =>
    add(
      ...wires(
        endsOf(signalIn(inputId(i)), isStereoIn(p)),
        at,
        i === 0 ? 'input' : `input-${i + 1}`,
        hasInputs(p) ? `Input ${letter}` : 'Input',
        hasInputs(p) ? only('input', letter) : undefined,
      ),
    ),
  );
  if (p.yes('tunerTap'))
    add(...wires(at, bus('tap', false), 'tap', 'Tuner output'), wire('tuner', 'Tuner output', '*tap', 'tuner'));
  const line = new Line(p, add, at);
  at = isBySlot ? line.inStoredOrder(numbers) : line.inOrder(numbers);
  add(...outputsOf(p, at));
  return sections;
}

/** From the last loop out: level, mute, and to which output. */
function outputsOf(p: Params, last: Ends): readonly Section[] {
  const isStereo = last.right !== undefined;
  const gain = p.int('outputGain') > 0;
  const before = gain ? bus('level', isStereo) : last;
  const level = gain
    ? throughSections(
        { input: last, output: before },
        { id: 'gain', label: 'Output gain', active: true, parameters: ['gain'] },
        { sums: false },
      )
    : [];
  const open: Record<string, readonly ControlValue[]> = p.yes('mute') ? { mute: [0] } : {};
  return [
    ...level,
    ...letters(p.int('outputs')).flatMap((letter, i) => {
      const controls: typeof open = !hasOutputs(p)
        ? open
        : p.yes('severalOutputs')
          ? { [outputId(i)]: [1], ...open }
          : { output: [letter], ...open };
      return wires(
        before,
        endsOf(signalOut(outputId(i)), isStereo),
        i === 0 ? 'output' : `output-${i + 1}`,
        hasOutputs(p) ? `Output ${letter}` : 'Output',
        Object.keys(controls).length > 0 ? { controls } : undefined,
      );
    }),
  ];
}

/** The loops one after the other, as they are wired or as a slot puts them. */
class Line {
  constructor(
    private readonly p: Params,
    private readonly add: (...sections: readonly Section[]) => void,
    private at: Ends,
  ) {}

  inOrder(numbers: readonly number[]): Ends {
    for (const i of numbers) {
      const next = bus(`bus${i}`, widthAt(this.p, i, false).after);
      this.loop(i, this.at, next);
      this.at = next;
      if (this.p.int('insertAfter') === i) this.insert();
    }
    return this.at;
  }

  /** Each place leads into each loop and out of it again: of those ways a slot opens one a place. */
  inStoredOrder(numbers: readonly number[]): Ends {
    const { after } = widthAt(this.p, 1, true);
    const insides = numbers.map((i) => ({ i, into: bus(`into-${i}`, after), outOf: bus(`out-of-${i}`, after) }));
    for (const { i, into, outOf } of insides) this.loop(i, into, outOf);
    for (const place of numbers) {
      const next = bus(`bus${place}`, after);
      for (const { i, into, outOf } of insides) {
        const here = only(placeId(i), place);
        this.add(
          ...wires(this.at, into, `place-${place}-to-${i}`, `Place ${place}`, here),
          ...wires(outOf, next, `place-${place}-from-${i}`, `Place ${place}`, here),
        );
      }
      this.at = next;
      if (this.p.int('insertAfter') === place) this.insert();
    }
    return this.at;
  }

  private loop(i: number, from: Ends, to: Ends): void {
    const { send, back } = widthAt(this.p, i, false);
    const tails = this.p.int('tailsFrom');
    const keepsTail = tails > 0 && i >= tails;
    const inside = only(loopId(i), 1);
    this.add(
      ...wires(from, endsOf(signalOut(`send-${i}`), send), `to-${i}`, `Send ${i}`, inside),
      // A tail is kept by a return that stays open when nothing is sent any more.
      ...wires(
        endsOf(signalIn(`return-${i}`), back),
        to,
        `from-${i}`,
        `Return ${i}`,
        keepsTail ? only(loopId(i), 0, 1) : inside,
      ),
      // Beside the line the signal goes on whether or not the loop is on; what comes back is added in a stage that
      // passes one way, or the loop would howl.
      ...(this.p.int('besideLoop') === i
        ? wires(from, to, `bypass-${i}`, `Beside loop ${i}`).map((section) => ({ ...section, active: true }))
        : wires(from, to, `bypass-${i}`, `Loop ${i} out`, only(loopId(i), 0))),
    );
  }

  /** One jack pair: where the line is stereo there, its left side goes through it. */
  private insert(): void {
    const before = this.at;
    const after = bus('inserted', before.right !== undefined);
    this.add(
      wire('insert-to', 'Insert send', before.left, 'insert-send'),
      wire('insert-from', 'Insert return', 'insert-return', after.left, { plugs: { 'insert-return': true } }),
      wire('insert-normal', 'Insert closed', before.left, after.left, { plugs: { 'insert-return': false } }),
      ...(before.right === undefined || after.right === undefined
        ? []
        : [wire('insert-right', 'Insert, right side', before.right, after.right)]),
    );
    this.at = after;
  }
}
