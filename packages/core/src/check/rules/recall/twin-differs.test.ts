import { expect, test } from '@jest/globals';
import { buildOn, setTwin } from '../../../change/based-on.ts';
import { want, wantPedal } from '../../../change/commands.ts';
import type { Command } from '../../../change/command.ts';
import type { Show } from '../../../model/documents.ts';
import { clean, fourCable, lead } from '../../../testing/build-show.ts';
import { editedShow } from '../../../testing/edited-show.ts';
import { ruleFaults } from '../../../testing/rule-tester.ts';
import { twinDiffers } from './twin-differs.ts';

test('fires where it must, and is quiet on the ordinary rig', () => {
  const { show } = fourCable()
    .sound('lead', lead)
    .sound('twin', { ...lead, name: 'Lead, cable' })
    .sound('clean', clean)
    .laid();
  const twin = (only: readonly string[] | undefined, ...makes: readonly ((show: Show) => Command)[]) =>
    editedShow(
      show,
      (now) => buildOn(now, 'twin', 'lead'),
      (now) => setTwin(now, 'twin', only),
      ...makes,
    );
  const preset = (now: Show) => want(now, 'twin', 'delay/preset', 6);
  const pedal = (now: Show) => wantPedal(now, 'twin', 'drive', undefined);
  expect(
    ruleFaults(twinDiffers, {
      clean: {
        'a twin that is the same': twin(['delay/preset']),
        'otherwise where it may be': twin(['delay/preset'], preset),
        'no twin, but built on it and otherwise': twin(undefined, preset),
      },
      faulty: {
        'a preset that drifted': { show: twin(['combo/channel'], preset), messages: ['differs'], fixable: true },
        'a pedal and a preset': { show: twin([], preset, pedal), messages: ['differs'], fixable: true },
      },
    }),
  ).toEqual([]);
});
