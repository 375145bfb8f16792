import { totalsOf } from '../pack/totals.ts';
import { kilograms } from '../units/shown.ts';
import type { Show } from '../model/documents.ts';
import { powerInUse } from '../power/wired.ts';
import type { Severity } from './define-rule.ts';
import { check, contextOf } from './engine.ts';
import { rules } from './rules/index.ts';

/** What can be counted of a rig, to hold it against another. */
export interface Figures {
  readonly pieces: number;
  readonly cables: number;
  readonly plugs: number;
  /** What all pieces weigh whose weight is known, in grams, and how many are not. */
  readonly grams: number;
  readonly unweighed: number;
  /** Pieces that need an output of a supply, and outputs that feed something. */
  readonly loads: number;
  readonly outputs: number;
  /** What the pieces cost whose price is known. */
  readonly price: readonly [low: number, high: number];
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
    ...builtOf(show),
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

function builtOf({ rig }: Show): Pick<Figures, 'grams' | 'unweighed' | 'loads' | 'outputs' | 'price'> {
  const { grams, unweighed, loads, price } = totalsOf(Object.values(rig.devices));
  const { feeds } = powerInUse(rig);
  return {
    grams,
    unweighed,
    loads,
    outputs: feeds.filter((feed) => feed.loads.length > 0).flatMap((feed) => feed.outputs).length,
    price,
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
  {
    label: 'Weight of the pieces',
    of: ({ grams, unweighed }) => `${unweighed > 0 ? 'at least ' : ''}${kilograms(grams)}`,
  },
  { label: 'Pieces that need an output', of: ({ loads }) => String(loads) },
  { label: 'Outputs in use', of: ({ outputs }) => String(outputs) },
  {
    label: 'Price of the pieces, as far as it is known',
    of: ({ price: [low, high] }) => (high === 0 ? 'not known' : low === high ? String(low) : `${low} to ${high}`),
  },
  { label: 'Findings that stop the show', of: ({ findings }) => String(findings['stops-the-show']) },
  { label: 'Findings to fix before load-in', of: ({ findings }) => String(findings['fix-before-load-in']) },
  { label: 'Findings worth knowing', of: ({ findings }) => String(findings['worth-knowing']) },
];
