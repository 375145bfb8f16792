import type { Show } from '../model/documents.ts';
import { type MoveKind, moveKinds, movesBetween } from '../variants/moves.ts';
import type { Sheet } from './sheet.ts';

export const moveHeadings: Readonly<Record<MoveKind, string>> = {
  unplug: 'Pull',
  leave: 'Leave out',
  bring: 'Bring',
  plug: 'Plug in',
  set: 'Set on the piece',
  store: 'Store in presets',
  program: 'Program slots',
  hands: 'By hand',
  played: 'Played otherwise',
};

/** What is moved to make one rig of another, in the order in which hands do it. */
export function movesSheet(from: Show, to: Show, about: string): Sheet {
  const moves = movesBetween(from, to);
  const valve = moves.some(({ kind }) => kind === 'unplug' || kind === 'plug');
  return {
    title: 'Moves',
    about,
    look: 'list',
    columns: ['Move'],
    groups: moveKinds.flatMap((kind) => {
      const lines = moves.filter((move) => move.kind === kind).map(({ id, words }) => ({ id, cells: [words] }));
      return lines.length > 0 ? [{ heading: moveHeadings[kind], lines }] : [];
    }),
    notes: valve
      ? [
          'Mute first, and switch a valve amplifier off before its loudspeaker is unplugged: never run it without its load.',
        ]
      : [],
  };
}
