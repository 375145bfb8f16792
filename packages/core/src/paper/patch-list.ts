import { type CableEnd, endsOf } from '../model/cable-ends.ts';
import { lengthLabel } from '../units/length.ts';
import { plugLabel } from '../model/labels.ts';
import { inOrder, type Show } from '../model/documents.ts';
import type { Cable } from '../model/rig.ts';
import type { Wiring } from '../model/wiring.ts';
import type { Sheet, SheetLine } from './sheet.ts';

const kinds: Readonly<Record<Cable['kind'], string>> = {
  signal: 'Signal',
  speaker: 'Loudspeaker',
  midi: 'MIDI',
  expression: 'Expression',
  contact: 'Contacts',
  power: 'Power',
  mains: 'Mains',
};

/** What plugs into what, by kind of cable. */
export function patchList(show: Show, wiring: Wiring): Sheet {
  const cables = inOrder(show.rig.cables);
  const groups = (Object.keys(kinds) as Cable['kind'][]).flatMap((kind) => {
    const own = cables.filter((cable) => cable.kind === kind);
    return own.length > 0 ? [{ heading: kinds[kind], lines: own.map((cable) => lineOf(wiring, cable)) }] : [];
  });
  const hasSpeaker = cables.some((cable) => cable.kind === 'speaker');
  return {
    title: 'Patch list',
    about: show.rig.name,
    look: 'list',
    columns: ['Tag', 'From', 'To', 'Length', 'Loom'],
    groups,
    notes: [
      ...cables.flatMap((cable) => (cable.poles ? [wiredWords(wiring, cable.tag, cable.plugs, cable.poles)] : [])),
      ...(hasSpeaker
        ? [
            'Loudspeakers: a loudspeaker cable, never an instrument cable; never run a valve power amplifier without its rated load.',
          ]
        : []),
    ],
  };
}

/** `C07 is wired: tip of Chorus, Out to tip of Reverb, In left; …` */
function wiredWords(wiring: Wiring, tag: string, plugs: Cable['plugs'], poles: NonNullable<Cable['poles']>): string {
  const wires = poles.map((wire) =>
    wire.map(({ plug, pole }) => `${pole} of ${plugLabel(wiring, plugs[plug])}`).join(' to '),
  );
  return `${tag} is wired: ${wires.join('; ')}.`;
}

function lineOf(wiring: Wiring, cable: Cable): SheetLine {
  const endLabels = (ends: readonly CableEnd[]) => ends.map(({ plug }) => plugLabel(wiring, plug)).join(' + ');
  const { from, to } = endsOf(wiring, cable);
  return {
    id: `cable/${cable.id}`,
    cells: [
      cable.tag,
      endLabels(from),
      endLabels(to),
      cable.length === null ? '' : lengthLabel(cable.length, wiring.rig.settings.lengthUnit),
      cable.loom ?? '',
    ],
  };
}
