import { expect, test } from '@jest/globals';
import { disconnect, setCable } from '../../../change/commands.ts';
import { standsAt, withBoard } from '../../../testing/board-rigs.ts';
import { editedShow } from '../../../testing/edited-show.ts';
import { ordinary } from '../../../testing/rule-rigs.ts';
import { ruleFaults } from '../../../testing/rule-tester.ts';
import { panelConnectorMissing } from './panel-connector-missing.ts';

/** A panel that stands on the board like any piece, or is let into its back edge. */
const withPanel = (edge?: 'back') =>
  standsAt(withBoard(ordinary().device('panel', 'edge-panel', 'Panel').show), {
    panel: { x: 300, y: 0, ...(edge ? { edge } : {}) },
  });
const past = withPanel('back');
/** What goes from the board to instruments, amplifier and loudspeaker. */
const crossing = Object.values(past.rig.cables).filter(({ plugs }) => {
  const on = plugs
    .map(({ device }) => past.rig.devices[device])
    .filter(({ place, type }) => place === 'board' && type.body);
  return on.length > 0 && on.length < plugs.length;
});
const guitarLead = crossing.find(({ plugs }) => plugs.some(({ device }) => device === 'guitar'))!;

test('fires where it must, and is quiet where it may not speak', () => {
  expect(crossing.length).toBeGreaterThan(2);
  expect(
    ruleFaults(panelConnectorMissing, {
      clean: {
        'no board': ordinary().show,
        'a panel that stands like any piece': withPanel(),
        'nothing leaves the board': editedShow(
          past,
          ...crossing.map(
            ({ id }) =>
              (show: typeof past) =>
                disconnect(show, id),
          ),
        ),
      },
      faulty: {
        'all past the panel': { show: past, messages: crossing.map(() => 'past') },
        'the instrument through it, the rest past it': {
          show: editedShow(past, (show) =>
            setCable(
              show,
              guitarLead.id,
              'plugs',
              guitarLead.plugs.map((plug) =>
                plug.device === 'guitar' ? plug : { device: 'panel' as never, jack: 'instrument-in' },
              ),
            ),
          ),
          messages: crossing.slice(1).map(() => 'past'),
        },
      },
    }),
  ).toEqual([]);
});
