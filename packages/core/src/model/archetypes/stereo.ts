import type { Jack, Section } from '../anatomy.ts';
import type { Archetype, Params } from './archetype.ts';
import { signalIn, signalOut } from './common.ts';

/** Mono, one side in and two out, or two throughout. */
export const widths = ['mono', 'mono to stereo', 'stereo'] as const;
export type WidthWord = (typeof widths)[number];

/** Parameters of what may be stereo. */
export const widthParams: Archetype['params'] = {
  width: { kind: 'choice', values: widths, default: 'mono', label: 'Width' },
  stereoJacks: {
    kind: 'choice',
    values: ['two jacks', 'one jack'],
    default: 'two jacks',
    label: 'Stereo comes by',
  },
};

/** The points of one end of a line: one where it is mono, left and right where it is not. */
export interface Ends {
  readonly jacks: readonly Jack[];
  readonly left: string;
  readonly right: string | undefined;
}

export const right = (id: string): string => `${id}-right`;

/**
 * The jacks of an end: one that is mono; left and right, of which the left serves alone as mono; or one whose tip is
 * left and whose ring is right.
 */
export function endsOf(jack: Jack, isStereo: boolean, isOneJack = false): Ends {
  if (!isStereo) return { jacks: [jack], left: jack.id, right: undefined };
  if (isOneJack)
    return {
      jacks: [{ ...jack, stereo: true, poles: ['tip', 'ring'] }],
      left: jack.id,
      right: `${jack.id}.ring`,
    };
  return {
    jacks: [
      { ...jack, label: `${jack.label} left`, side: 'left' },
      { ...jack, id: right(jack.id), label: `${jack.label} right`, side: 'right', twin: jack.id },
    ],
    left: jack.id,
    right: right(jack.id),
  };
}

export interface Through {
  readonly input: Ends;
  readonly output: Ends;
  readonly jacks: readonly Jack[];
}

/** Input and output of what a signal goes through, by its parameters. */
export function throughOf(p: Params, input = signalIn(), output = signalOut()): Through {
  const width = p.word('width') as WidthWord;
  const isOneJack = p.word('stereoJacks') === 'one jack';
  const ends = {
    input: endsOf(input, width === 'stereo', isOneJack),
    output: endsOf(output, width !== 'mono', isOneJack),
  };
  return { ...ends, jacks: [...ends.input.jacks, ...ends.output.jacks] };
}

/** What happens between the sides. */
export interface Crossing {
  /** Each side is heard in the other. */
  readonly crosses?: boolean;
  /** A left output alone carries the sum of both, as is usual of an effect; a switcher's relays do not sum. */
  readonly sums?: boolean;
}

/**
 * The sections that carry both sides through. With two jacks at an end plug presence decides, as is usual: a left input
 * alone feeds both sides.
 */
export function throughSections(
  { input, output }: Pick<Through, 'input' | 'output'>,
  section: Omit<Section, 'from' | 'to' | 'pair'>,
  { crosses = false, sums = true }: Crossing = {},
): readonly Section[] {
  const [inRight, outRight] = [input.right, output.right];
  if (outRight === undefined && inRight === undefined) return [{ ...section, from: input.left, to: output.left }];
  const side = (suffix: string, from: string, to: string, plugs: Plugs = {}): Section => ({
    ...section,
    id: suffix === '' ? section.id : `${section.id}-${suffix}`,
    from,
    to,
    pair: section.id,
    ...(Object.keys(plugs).length > 0 ? { when: { ...section.when, plugs } } : {}),
  });
  const isIn = plugged(inRight, true);
  const isOut = sums ? plugged(outRight, true) : {};
  const both = { ...isIn, ...isOut };
  const left = side('', input.left, output.left);
  if (outRight === undefined) return inRight === undefined ? [left] : [left, side('right', inRight, output.left, isIn)];
  // What comes into the left alone goes to the right as well.
  if (inRight === undefined) return [left, side('right', input.left, outRight, isOut)];
  return [
    left,
    side('right', inRight, outRight, both),
    ...(isJack(inRight) ? [side('spread', input.left, outRight, { [inRight]: false, ...isOut })] : []),
    ...(sums && isJack(outRight) ? [side('sum', inRight, output.left, { ...isIn, [outRight]: false })] : []),
    ...(crosses
      ? [side('left-to-right', input.left, outRight, both), side('right-to-left', inRight, output.left, both)]
      : []),
  ];
}

type Plugs = Readonly<Record<string, boolean>>;

/** Whether a point is a jack of its own, whose plug can be asked for: not a pole of one, not a point inside. */
const isJack = (point: string): boolean => !point.includes('.') && !point.startsWith('*');
const plugged = (point: string | undefined, is: boolean): Plugs =>
  point !== undefined && isJack(point) ? { [point]: is } : {};
