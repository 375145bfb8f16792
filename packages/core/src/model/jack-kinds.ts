/** What goes through a jack. */
export type Carries = 'signal' | 'midi' | 'contact' | 'expression' | 'power' | 'mains';

interface JackFacts {
  readonly carries: Carries;
  readonly direction: 'in' | 'out';
  /** What a MIDI output passes on: what the device makes itself, what comes in, or both. */
  readonly midi?: 'out' | 'thru' | 'merge';
}

/** Every kind of jack, said once: whoever needs a list of some of them asks here. */
export const jackKinds = {
  'signal-in': { carries: 'signal', direction: 'in' },
  'signal-out': { carries: 'signal', direction: 'out' },
  'midi-in': { carries: 'midi', direction: 'in' },
  'midi-out': { carries: 'midi', direction: 'out', midi: 'out' },
  'midi-thru': { carries: 'midi', direction: 'out', midi: 'thru' },
  'midi-merge': { carries: 'midi', direction: 'out', midi: 'merge' },
  'contact-in': { carries: 'contact', direction: 'in' },
  'contact-out': { carries: 'contact', direction: 'out' },
  'expression-in': { carries: 'expression', direction: 'in' },
  'expression-out': { carries: 'expression', direction: 'out' },
  'power-in': { carries: 'power', direction: 'in' },
  'power-out': { carries: 'power', direction: 'out' },
  'mains-in': { carries: 'mains', direction: 'in' },
  'mains-out': { carries: 'mains', direction: 'out' },
} as const satisfies Record<string, JackFacts>;

export type JackKind = keyof typeof jackKinds;

export const jackFacts = (kind: JackKind): JackFacts => jackKinds[kind];

/** Kinds of jacks that an anatomy has: those of power follow from the power facts of a type. */
export const anatomyJackKinds = (Object.keys(jackKinds) as JackKind[]).filter(
  (kind) => !['power', 'mains'].includes(jackFacts(kind).carries),
);

/** What a kind of cable carries; a loudspeaker cable carries a signal. */
export const cableCarries = {
  signal: 'signal',
  speaker: 'signal',
  midi: 'midi',
  contact: 'contact',
  expression: 'expression',
  power: 'power',
  mains: 'mains',
} as const satisfies Record<string, Carries>;

/** The kind of jack that takes in what one gives out; none for a jack that takes in itself. */
export function mateOf(kind: JackKind): JackKind | undefined {
  const { carries, direction } = jackFacts(kind);
  if (direction === 'in') return undefined;
  return (Object.keys(jackKinds) as JackKind[]).find(
    (other) => jackFacts(other).carries === carries && jackFacts(other).direction === 'in',
  );
}
