import { type Condition, type ControlValue, type Insert, type Jack, lineSides, type Section } from '../anatomy.ts';
import type { Params } from './archetype.ts';
import { signalIn, signalOut } from './common.ts';
import { type Block, type ModellerParts, placeOf, sideOf } from './modeller-parts.ts';
import { type Ends, endsOf, throughSections, type WidthWord } from './stereo.ts';

/** The signal part of a modeller: its sockets, and the ways inside that a preset opens. */
export interface ModellerSignal {
  readonly jacks: readonly Jack[];
  readonly sections: readonly Section[];
  readonly inserts: readonly Insert[];
}

export function modellerSignal(p: Params, parts: ModellerParts): ModellerSignal {
  const signal = new Signal(p, parts);
  signal.draw();
  return {
    jacks: jacksOf(p),
    sections: signal.sections,
    inserts: Array.from({ length: p.int('loops') }, (_, i) => ({ send: `send-${i + 1}`, return: `return-${i + 1}` })),
  };
}

const isStereoIn = (p: Params): boolean => (p.word('width') as WidthWord) === 'stereo';
const isStereoOut = (p: Params): boolean => (p.word('width') as WidthWord) !== 'mono';
const isOneJack = (p: Params): boolean => p.word('stereoJacks') === 'one jack';
const isStereoLoop = (p: Params, loop: number): boolean =>
  isStereoOut(p) && p.int('stereoLoopsFrom') > 0 && loop >= p.int('stereoLoopsFrom');

const letterOf = (i: number): string => 'ABCD'[i];
const inputId = (i: number): string => (i === 0 ? 'in' : `in-${i + 1}`);
const outputId = (i: number): string => (i === 0 ? 'out' : `out-${i + 1}`);
const inputEnds = (p: Params, i: number): Ends =>
  endsOf(signalIn(inputId(i), p.int('inputs') > 1 ? `In ${letterOf(i)}` : 'In'), isStereoIn(p), isOneJack(p));
const outputEnds = (p: Params, i: number): Ends =>
  endsOf(signalOut(outputId(i), p.int('outputs') > 1 ? `Out ${letterOf(i)}` : 'Out'), isStereoOut(p), isOneJack(p));
const sendEnds = (p: Params, loop: number): Ends =>
  endsOf(signalOut(`send-${loop}`, `Send ${loop}`), isStereoLoop(p, loop), isOneJack(p));
const returnEnds = (p: Params, loop: number): Ends =>
  endsOf(signalIn(`return-${loop}`, `Return ${loop}`), isStereoLoop(p, loop), isOneJack(p));

const counted = <T>(count: number, make: (i: number) => T): readonly T[] =>
  Array.from({ length: count }, (_, i) => make(i));

const jacksOf = (p: Params): readonly Jack[] => [
  ...counted(p.int('inputs'), (i) => inputEnds(p, i).jacks).flat(),
  ...counted(p.int('loops'), (i) => [...sendEnds(p, i + 1).jacks, ...returnEnds(p, i + 1).jacks]).flat(),
  ...counted(p.int('outputs'), (i) => outputEnds(p, i).jacks).flat(),
];

type Values = Readonly<Record<string, readonly ControlValue[]>>;
const when = (controls: Values): Condition | undefined => (Object.keys(controls).length > 0 ? { controls } : undefined);
const [ahead, beside] = lineSides;

class Signal {
  readonly sections: Section[] = [];
  private readonly isStereo: boolean;
  private readonly isOrdered: boolean;
  private readonly hasBranch: boolean;

  constructor(
    private readonly p: Params,
    private readonly parts: ModellerParts,
  ) {
    this.isStereo = isStereoOut(p);
    this.isOrdered = p.word('order') === 'by preset' && parts.blocks.length > 1;
    this.hasBranch = this.isOrdered && p.yes('branch');
  }

  draw(): void {
    const { p } = this;
    const { blocks } = this.parts;
    counted(p.int('inputs'), (i) =>
      this.wires(
        inputEnds(p, i),
        this.bus('line-0'),
        i === 0 ? 'input' : `input-${i + 1}`,
        p.int('inputs') > 1 ? `Input ${letterOf(i)}` : 'Input',
        p.int('inputs') > 1 ? { input: [letterOf(i)] } : {},
      ),
    );
    if (this.isOrdered) this.inStoredOrder();
    else blocks.forEach((block, i) => this.block(block, this.bus(`line-${i}`), this.bus(`line-${i + 1}`)));
    counted(p.int('outputs'), (i) =>
      this.add(
        throughSections(
          { input: this.bus(`line-${blocks.length}`), output: outputEnds(p, i) },
          {
            id: i === 0 ? 'output' : `output-${i + 1}`,
            label: p.int('outputs') > 1 ? `Output ${letterOf(i)}` : 'Output',
            active: false,
            ...(p.int('outputs') > 1 ? { when: { controls: { [`output-${i + 1}`]: [1] } } } : {}),
          },
        ),
      ),
    );
  }

  /** Each place of the line, and of the branch, leads into each block and out again: a preset opens one way a place. */
  private inStoredOrder(): void {
    const { blocks } = this.parts;
    for (const block of blocks) this.block(block, this.bus(`into-${block.id}`), this.bus(`out-of-${block.id}`));
    for (let place = 1; place <= blocks.length; place += 1)
      for (const side of this.hasBranch ? lineSides : [ahead]) this.place(place, side);
    if (!this.hasBranch) return;
    for (let place = 1; place <= blocks.length; place += 1) {
      this.wires(this.point(ahead, place - 1), this.point(beside, place - 1), `leave-${place}`, 'Into the branch', {
        'branch-leaves': [place],
      });
      // What comes back is added in a stage that passes one way.
      this.add(
        throughSections(
          { input: this.point(beside, place), output: this.point(ahead, place) },
          {
            id: `join-${place}`,
            label: 'Back from the branch',
            active: true,
            when: { controls: { 'branch-joins': [place], 'branch-leaves': range(1, place) } },
          },
          { sums: false },
        ),
      );
    }
  }

  private place(place: number, side: (typeof lineSides)[number]): void {
    const before = this.point(side, place - 1);
    const after = this.point(side, place);
    for (const block of this.parts.blocks) {
      const here: Values = { [placeOf(block)]: [place] };
      const on: Values = this.hasBranch ? { ...here, [sideOf(block)]: [side] } : here;
      const id = `${side}-${place}`;
      this.wires(before, this.bus(`into-${block.id}`), `${id}-to-${block.id}`, `Place ${place}`, on);
      this.wires(this.bus(`out-of-${block.id}`), after, `${id}-from-${block.id}`, `Place ${place}`, on);
      if (this.hasBranch) {
        const other = side === ahead ? beside : ahead;
        this.wires(before, after, `${id}-past-${block.id}`, `Past ${block.name}`, {
          ...here,
          [sideOf(block)]: [other],
        });
      }
    }
  }

  /** The block on, or the way past it: in each state inside a preset as that has it. */
  private block(block: Block, from: Ends, to: Ends): void {
    block.switches.forEach((control, i) => {
      const state: Values = this.parts.states > 1 ? { state: [i + 1] } : {};
      const suffix = this.parts.states > 1 ? `-${i + 1}` : '';
      const on = { ...state, [control]: [1] };
      if (block.loop === undefined)
        this.add(
          throughSections(
            { input: from, output: to },
            {
              id: `${block.id}${suffix}`,
              label: block.name,
              active: true,
              effect: block.effect,
              parameters: this.heardIn(block),
              when: { controls: on },
            },
            { sums: false },
          ),
        );
      else {
        this.wires(from, sendEnds(this.p, block.loop), `to-${block.id}${suffix}`, `Send ${block.loop}`, on);
        this.wires(returnEnds(this.p, block.loop), to, `from-${block.id}${suffix}`, `Return ${block.loop}`, on);
      }
      this.wires(from, to, `past-${block.id}${suffix}`, `${block.name} off`, { ...state, [control]: [0] });
    });
  }

  /** The controls whose values a block’s sound has in it: parameters named after it, and what assignments move. */
  private heardIn({ name }: Block): readonly string[] {
    const { parameters, assignments, blocks } = this.parts;
    const isOwn = (parameter: string): boolean => ownerOf(parameter, blocks)?.name === name;
    const own = parameters.filter((parameter) => isOwn(parameter.name));
    const moved = assignments.filter(({ moves }) =>
      moves.some(
        (moved) =>
          moved.toLowerCase() === name.toLowerCase() ||
          own.some((each) => each.name.toLowerCase() === moved.toLowerCase()),
      ),
    );
    return ['preset', ...own.map(({ id }) => id), ...moved.map(({ id }) => id)];
  }

  private readonly point = (side: (typeof lineSides)[number], place: number): Ends =>
    this.bus(side === ahead ? `line-${place}` : `beside-${place}`);

  private readonly bus = (id: string): Ends => ({
    jacks: [],
    left: `*${id}`,
    right: this.isStereo ? `*${id}-right` : undefined,
  });

  private add(more: readonly Section[]): void {
    this.sections.push(...more);
  }

  private wires(from: Ends, to: Ends, id: string, label: string, controls: Values): void {
    const condition = when(controls);
    this.add(
      throughSections(
        { input: from, output: to },
        { id, label, active: false, ...(condition ? { when: condition } : {}) },
        { sums: false },
      ),
    );
  }
}

/** The block that a parameter is named after: *Delay mix* is the delay’s; of several the longest; none: the first’s. */
export function ownerOf(parameter: string, blocks: readonly Block[]): Block | undefined {
  const begins = blocks.filter(({ name }) => parameter.toLowerCase().startsWith(name.toLowerCase()));
  return begins.sort((a, b) => b.name.length - a.name.length)[0] ?? blocks[0];
}

const range = (from: number, to: number): readonly number[] =>
  Array.from({ length: to - from + 1 }, (_, i) => from + i);
