import { boardsOf } from '../../../build/boards.ts';
import { standing } from '../../../build/judge-board.ts';
import { cableRuns } from '../../../build/runs.ts';
import { defineRule, type Reported } from '../../define-rule.ts';
import { none } from '../../queries.ts';

export const panelConnectorMissing = defineRule({
  meta: {
    id: 'build/panel-connector-missing',
    severity: 'worth-knowing',
    title: 'A cable past the edge panel',
    why: 'What is plugged into a pedal itself pulls at it, and is the one cable that nobody finds when the rest of the board is plugged in at its edge.',
    remedy: 'Give the edge panel a line for it, and lead it through; or keep it, and say so.',
    source: 'common practice: everything leaves a board with an edge panel at the panel',
    messages: {
      past: '{tag} joins {device} and {other} past the edge panel of {board}; there it would need a line for “{plug}”.',
    },
  },
  check: ({ show: { rig } }) => {
    const boards = boardsOf(rig).filter((board) => standing(board).some(({ edge }) => edge !== undefined));
    if (boards.length === 0) return none;
    const runs = cableRuns(rig);
    return boards.flatMap((board) => {
      const here = new Map(board.pieces.map((piece) => [piece.device.id, piece]));
      return runs.flatMap(({ cable, ends }): readonly Reported<'past'>[] => {
        const inside = ends.find(({ plug }) => here.has(plug.device));
        const outside = ends.find(({ plug }) => !here.has(plug.device));
        if (!inside || !outside || ends.some(({ plug }) => here.get(plug.device)?.edge !== undefined)) return none;
        return [
          {
            messageId: 'past',
            at: { device: inside.plug.device },
            data: {
              tag: cable.tag,
              device: inside.device,
              other: outside.device,
              board: board.place.name,
              plug: outside.takes,
            },
          },
        ];
      });
    });
  },
});
