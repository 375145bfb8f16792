import { boardsOf } from '../../../build/boards.ts';
import { freeBefore, plugThatClears, standing } from '../../../build/judge-board.ts';
import { plugRoom } from '../../../model/body.ts';
import { defineRule, type Reported } from '../../define-rule.ts';
import { none } from '../../queries.ts';

export const noRoomForPlug = defineRule({
  meta: {
    id: 'build/no-room-for-plug',
    severity: 'fix-before-load-in',
    title: 'A plug without room',
    why: 'A plug that touches the next piece or stands out over the edge is bent, and fails in the middle of a show.',
    remedy: 'Move one of the pieces, turn one, or use a flat plug that needs less.',
    source: 'common practice; outlines as entered',
    messages: {
      room: 'At {jack} of {device} {free} mm are free; even an angled plug needs {needed}.',
    },
  },
  check: ({ show }) =>
    boardsOf(show.rig).flatMap((board) =>
      standing(board).flatMap((piece) =>
        piece.plugs.flatMap((plug): readonly Reported<'room'>[] => {
          if (plugThatClears(board, piece, plug) !== 'none') return none;
          return [
            {
              messageId: 'room',
              at: { device: piece.device.id },
              data: {
                jack: plug.label,
                device: piece.device.name,
                free: Math.max(0, Math.round(freeBefore(board, piece, plug))),
                needed: plugRoom[plug.carries].angled,
              },
            },
          ];
        }),
      ),
    ),
});
