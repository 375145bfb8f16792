/**
 * The stations in the order of the work, and the findings that each of them mends. A gap stands before the first of
 * each group.
 */
export interface Station {
  readonly to: string;
  readonly name: string;
  readonly gap?: boolean;
  /** Works on pieces: the selected one stays there. */
  readonly pieces?: boolean;
  readonly holds: (rule: string) => boolean;
}

/** Found in what a sound asks for, whatever its topic. */
const soundRules: ReadonlySet<string> = new Set([
  'midi/program-out-of-range',
  'midi/counts-otherwise',
  'recall/hand-only',
  'recall/held-by-pedal',
  'recall/identical-sounds',
  'recall/twin-differs',
]);
const inTopic =
  (topic: string) =>
  (rule: string): boolean =>
    rule.startsWith(`${topic}/`) && !soundRules.has(rule);
/** Told where cases are packed. */
const flyingBattery = 'safety/flying-battery';
const none = (): boolean => false;

export const stations: readonly Station[] = [
  { to: 'overview', name: 'Overview', holds: none },
  { to: 'gear', name: 'Gear', pieces: true, holds: none },
  {
    to: 'routing',
    name: 'Routing',
    pieces: true,
    holds: (rule) => inTopic('routing')(rule) || inTopic('loudspeakers')(rule),
  },
  {
    to: 'power',
    name: 'Power',
    pieces: true,
    holds: (rule) => inTopic('power')(rule) || (inTopic('safety')(rule) && rule !== flyingBattery),
  },
  {
    to: 'build',
    name: 'Build',
    pieces: true,
    holds: (rule) => inTopic('build')(rule) || rule === flyingBattery,
  },
  { to: 'sounds', name: 'Sounds', gap: true, holds: (rule) => soundRules.has(rule) },
  { to: 'program', name: 'Program', holds: inTopic('midi') },
  { to: 'set', name: 'Set', holds: inTopic('show') },
  { to: 'proof', name: 'Proof', gap: true, holds: inTopic('recall') },
];
