import { lineEndWords, linesThrough } from '../build/lines.ts';
import { cableRuns, cutListOf, type EndToMake, loomsOf, pluggingOrder } from '../build/runs.ts';
import type { Show } from '../model/documents.ts';
import { lengthLabel } from '../units/length.ts';
import type { Metres } from '../units/quantities.ts';
import type { Sheet } from './sheet.ts';

export const endWords = ({ device, jack, connector, bent, clears }: EndToMake): string =>
  [
    `${device} ${jack}`,
    [connector, ...(bent ? ['angled'] : []), ...(clears === 'none' ? ['no room for it'] : [])].join(', '),
  ].join(': ');

/** Every cable with its ends as they have to be made, its length and its loom; what is cut from which reel. */
export function cableSchedule({ rig }: Show): Sheet {
  const unit = rig.settings.lengthUnit;
  const label = (metres: number | null): string => (metres === null ? '' : lengthLabel(metres as Metres, unit));
  const runs = cableRuns(rig);
  const looms = [...loomsOf(runs).map(({ name }) => name), null];
  const loomLength = (name: string): string => label(loomsOf(runs).find((loom) => loom.name === name)!.metres);
  const reels = rig.settings.reels ?? [];
  const list = cutListOf(rig, runs);
  const kindOf = (id: string): string => reels.find((reel) => reel.id === id)?.kind ?? id;
  return {
    title: 'Cable schedule',
    about: rig.name,
    look: 'list',
    columns: ['Tag', 'From', 'To', 'Length', 'Is'],
    groups: [
      ...looms.map((loom) => ({
        heading: loom === null ? 'Single cables' : [`Loom ${loom}`, loomLength(loom)].filter(Boolean).join(', '),
        lines: runs
          .filter(({ cable }) => cable.loom === loom)
          .map(({ cable, ends: [first, ...more], metres, runs: run }) => ({
            id: `cable/${cable.id}`,
            cells: [
              cable.tag,
              endWords(first),
              more.map(endWords).join(' + '),
              label(metres),
              cable.length !== null ? 'measured' : run === null ? 'to be measured' : 'from positions',
            ],
          })),
      })),
      {
        heading: 'Order of plugging: mute first, the mains last; out in the reverse',
        lines: [
          {
            id: 'plugging',
            cells: [
              '',
              pluggingOrder(runs)
                .map(({ cable }) => cable.tag)
                .join(', '),
              '',
              '',
              '',
            ],
          },
        ].filter(() => runs.length > 0),
      },
      ...linesThrough(rig).map(({ device, lines }) => ({
        heading: `Lines of ${device.name}: ${lines.filter(({ is }) => is === 'spare').length} of ${lines.length} spare`,
        lines: lines.map((line) => ({
          id: `line/${device.id}/${line.number}`,
          cells: [
            String(line.number),
            [line.into.jack, lineEndWords(line.into)].filter(Boolean).join(': '),
            [line.out.jack, lineEndWords(line.out)].filter(Boolean).join(': '),
            line.wire ? label(line.wire.metres) : '',
            line.is === 'in use' ? line.carries : line.is,
          ],
        })),
      })),
      ...(reels.length === 0
        ? []
        : [
            {
              heading: `Cut list: ${label(list.begun)} of reels begun${list.isProved ? ', no way begins less' : `, at least ${label(list.atLeast)}`}`,
              lines: [
                ...list.reels.map(({ reel, pieces, left }) => ({
                  id: `reel/${reel.name}`,
                  cells: [
                    kindOf(reel.name),
                    pieces.map(({ name, metres }) => `${name} ${label(metres)}`).join(', '),
                    `${label(left)} left`,
                    label(reel.metres),
                    '',
                  ],
                })),
                ...[...list.tooLong, ...list.notCut].map(({ name, metres }) => ({
                  id: `uncut/${name}`,
                  cells: [
                    name,
                    'on no reel',
                    list.tooLong.some((piece) => piece.name === name)
                      ? 'longer than every reel'
                      : 'the reels are used up',
                    label(metres),
                    '',
                  ],
                })),
              ],
            },
          ]),
    ].filter(({ lines }) => lines.length > 0),
    notes: [
      'Runs are counted along the edges of the board, with a tenth and a hand’s breadth of slack. Loudspeakers: a loudspeaker cable, never an instrument cable.',
    ],
  };
}
