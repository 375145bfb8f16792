import {
  bankPlans,
  cueSheet,
  type PartSteps,
  type ResetReport,
  patchList,
  powerPlan,
  cableSchedule,
  packingList,
  shoppingList,
  tagSheet,
  programmingSheets,
  type Sheet,
  type Show,
  type Tracer,
  type Wiring,
} from '@yunta/core';
import type { Sound } from '@yunta/core';
import { layWeave } from '../stations/routing/signal-diagram-layout.ts';
import { diagramSvg } from '../stations/routing/signal-diagram-svg.ts';
import type { PaperSize, Printed } from '../workers/pdf-types.ts';

/** What can be printed, in the order of the paper. */
export const printables = [
  ['programming', 'Programming', 'settings, a matrix of slots, and line by line what differs'],
  ['banks', 'Bank plan', 'what lies under each switch'],
  ['patch', 'Patch list', 'what plugs into what'],
  ['power', 'Power plan', 'what hangs on which output, batteries, the mains'],
  ['cables', 'Cable schedule', 'ends, lengths and looms, and what is cut from which reel'],
  ['shopping', 'Shopping list', 'what is to be bought, and by when it has to be ordered'],
  ['packing', 'Packing list', 'what goes into which case'],
  ['tags', 'Tags', 'for cases and for both ends of each cable'],
  ['drawing', 'Routing drawing', 'the run of the selected sound'],
  ['cues', 'Cue sheet', 'parts, slots, feet and hands, to be read from the floor'],
] as const;
export type Printable = (typeof printables)[number][0];

/** What is chosen to begin with: what is read on stage; what is built, bought and packed is asked for. */
export const usuallyPrinted: readonly Printable[] = printables
  .map(([what]) => what)
  .filter((what) => !['cables', 'shopping', 'packing', 'tags'].includes(what));

interface OpenedShow {
  readonly show: Show;
  readonly wiring: Wiring;
  readonly tracer: Tracer;
  readonly sound: Sound | null;
  /** The set as it is played. */
  readonly played: readonly PartSteps[];
  /** How to be sure of the sounds that feet and hands bring up. */
  readonly resets: readonly ResetReport[];
}

/** The sheets of one kind; none for the drawing. */
export function sheetsOf({ show, wiring, played, resets }: OpenedShow, what: Printable): readonly Sheet[] {
  switch (what) {
    case 'programming':
      return programmingSheets(show, wiring);
    case 'banks':
      return bankPlans(show, wiring);
    case 'patch':
      return [patchList(show, wiring)];
    case 'cables':
      return [cableSchedule(show)];
    case 'shopping':
      return [shoppingList(show)];
    case 'packing':
      return [packingList(show)];
    case 'tags':
      return [tagSheet(show)];
    case 'power':
      return [powerPlan(show)];
    case 'cues':
      return [cueSheet(show, wiring, played, resets)];
    case 'drawing':
      return [];
  }
}

/** The run of the selected sound as SVG, as wide as it needs. */
export const drawingOf = ({ wiring, tracer, sound }: OpenedShow): string =>
  diagramSvg(layWeave(wiring, tracer.trace(sound), 900));

export const printedOf = (open: OpenedShow, kinds: readonly Printable[]): readonly Printed[] =>
  kinds.flatMap((what): readonly Printed[] =>
    what === 'drawing'
      ? [
          {
            kind: 'drawing',
            title: 'Routing',
            about: open.sound ? `in ${open.sound.name}` : 'as the rig powers up',
            svg: drawingOf(open),
          },
        ]
      : sheetsOf(open, what)
          .filter((sheet) => sheet.groups.some((group) => group.lines.length > 0))
          .map((sheet) => ({ kind: 'sheet', sheet })),
  );

/** The paper that is usual where the browser's language is spoken. */
export const usualPaper = (language: string): PaperSize =>
  /-(US|CA|MX|PH|CO|CL|VE)\b/.test(language) ? 'LETTER' : 'A4';
