import type { Show } from '../model/documents.ts';
import type { Severity } from './define-rule.ts';
import { check, contextOf } from './engine.ts';
import { rules } from './rules/index.ts';

/** What can be counted of a rig, to hold it against another. */
export interface Figures {
  readonly pieces: number;
  readonly cables: number;
  readonly plugs: number;
  /** Slots with a sound that recall from anywhere, of all such. */
  readonly recall: number;
  readonly judged: number;
  /** Parts that feet bring up, of all that no slot plays. */
  readonly byFeet: number;
  readonly playedByFeet: number;
  readonly presses: number;
  readonly findings: Readonly<Record<Severity, number>>;
}

/** A rig judged anew, and counted. */
export function figuresOf(show: Show): Figures {
  const context = contextOf(show);
  const { findings } = check(context, rules);
  const judgements = context.prover.all(2);
  const counted = (severity: Severity) =>
    findings.filter((finding) => finding.severity === severity && !finding.follows).length;
  const byFeet = context.prover.set.parts.filter(({ sound, slot }) => sound !== undefined && !slot);
  return {
    pieces: Object.keys(show.rig.devices).length,
    cables: Object.keys(show.rig.cables).length,
    plugs: Object.values(show.rig.cables).reduce((sum, { plugs }) => sum + plugs.length, 0),
    recall: judgements.filter(({ verdict }) => verdict === 'recalls').length,
    judged: judgements.length,
    byFeet: byFeet.filter(({ failed }) => !failed).length,
    playedByFeet: byFeet.length,
    presses: context.prover.set.parts.reduce(
      (sum, { events }) => sum + events.filter(({ action }) => action?.kind === 'foot').length,
      0,
    ),
    findings: {
      'stops-the-show': counted('stops-the-show'),
      'fix-before-load-in': counted('fix-before-load-in'),
      'worth-knowing': counted('worth-knowing'),
    },
  };
}

/** The figures in the order in which they are read. */
export const figureRows: readonly { readonly label: string; readonly of: (figures: Figures) => string }[] = [
  { label: 'Sounds that recall from anywhere', of: ({ recall, judged }) => `${recall} of ${judged}` },
  {
    label: 'Parts played by feet and hands',
    of: ({ byFeet, playedByFeet }) => (playedByFeet === 0 ? 'none' : `${byFeet} of ${playedByFeet}`),
  },
  { label: 'Presses of foot switches in the set', of: ({ presses }) => String(presses) },
  { label: 'Pieces', of: ({ pieces }) => String(pieces) },
  { label: 'Cables', of: ({ cables }) => String(cables) },
  { label: 'Plugs', of: ({ plugs }) => String(plugs) },
  { label: 'Findings that stop the show', of: ({ findings }) => String(findings['stops-the-show']) },
  { label: 'Findings to fix before load-in', of: ({ findings }) => String(findings['fix-before-load-in']) },
  { label: 'Findings worth knowing', of: ({ findings }) => String(findings['worth-knowing']) },
];
