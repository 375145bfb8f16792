import { boardsOf } from '../../../build/boards.ts';
import { freeBefore, freeForCover, plugThatClears, roomNeeded, standing } from '../../../build/judge-board.ts';
import { plugRoom } from '../../../model/body.ts';
import { defineRule, type Reported } from '../../define-rule.ts';
import { none } from '../../queries.ts';

export const noRoomForPlug = defineRule({
  meta: {
    id: 'build/no-room-for-plug',
    severity: 'fix-before-load-in',
    title: 'A plug or a cover without room',
    why: 'A plug that touches the next piece or stands out over the edge is bent, and fails in the middle of a show. A cover that cannot be opened keeps a fuse or a battery where it is.',
    remedy: 'Move one of the pieces, turn one, or use a flat plug that needs less.',
    source: 'common practice; outlines as entered',
    messages: {
      room: 'At {jack} of {device} {free} mm are free; even an angled plug needs {needed}.',
      straight: 'At {jack} of {device} {free} mm are free; the straight plug of {tag} needs {needed}.',
      cover: '{device} needs {needed} mm beside it for its cover to open; {free} are free.',
    },
  },
  check: ({ show }) =>
    boardsOf(show.rig).flatMap((board) =>
      standing(board).flatMap((piece): readonly Reported<'room' | 'straight' | 'cover'>[] => {
        const { device, plugs } = piece;
        const cover = freeForCover(board, piece);
        return [
          ...plugs
            .filter((plug) => plugThatClears(board, piece, plug) === 'none')
            .map((plug) => {
              const needed = roomNeeded(plug);
              return {
                messageId: needed > plugRoom[plug.carries].angled ? ('straight' as const) : ('room' as const),
                at: { device: device.id },
                data: {
                  jack: plug.label,
                  device: device.name,
                  tag: plug.cable.tag,
                  free: Math.max(0, Math.round(freeBefore(board, piece, plug))),
                  needed,
                },
              };
            }),
          ...(cover && cover.free < cover.needed
            ? [
                {
                  messageId: 'cover' as const,
                  at: { device: device.id },
                  data: { device: device.name, needed: cover.needed, free: Math.max(0, Math.round(cover.free)) },
                },
              ]
            : none),
        ];
      }),
    ),
});
