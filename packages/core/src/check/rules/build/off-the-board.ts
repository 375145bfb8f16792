import { boardsOf } from '../../../build/boards.ts';
import { overhang, overlaps, standing, tooTall } from '../../../build/judge-board.ts';
import { defineRule, type Reported } from '../../define-rule.ts';
import { none } from '../../queries.ts';

export const offTheBoard = defineRule({
  meta: {
    id: 'build/off-the-board',
    severity: 'fix-before-load-in',
    title: 'Pieces that do not stand as they are drawn',
    why: 'Two pieces on one spot, or one that stands out over the edge or under what lies above it, are found out when everything is glued down.',
    remedy: 'Arrange the board, or move a piece; measure it where its outline is a typical one.',
    source: 'the outlines as entered',
    messages: {
      overlap: '{device} and {other} stand on each other.',
      overhang: '{device} stands {mm} mm out over the edge.',
      tall: '{device} is {height} mm high; {free} mm are free where it stands.',
    },
  },
  check: ({ show }) =>
    boardsOf(show.rig).flatMap((board): readonly Reported<'overlap' | 'overhang' | 'tall'>[] => [
      ...overlaps(board).map(([a, b]) => ({
        messageId: 'overlap' as const,
        at: { device: a.device.id },
        data: { device: a.device.name, other: b.device.name },
      })),
      ...standing(board).flatMap((piece): readonly Reported<'overhang' | 'tall'>[] => {
        const { device, body } = piece;
        const [out, free] = [overhang(board, piece), tooTall(board, piece)];
        return [
          ...(out > 0
            ? [{ messageId: 'overhang' as const, at: { device: device.id }, data: { device: device.name, mm: out } }]
            : none),
          ...(free !== undefined
            ? [
                {
                  messageId: 'tall' as const,
                  at: { device: device.id },
                  data: { device: device.name, height: body.height, free },
                },
              ]
            : none),
        ];
      }),
    ]),
});
