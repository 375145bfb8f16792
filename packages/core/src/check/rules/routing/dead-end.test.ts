import { expect, test } from '@jest/globals';
import { addDevice } from '../../../change/commands.ts';
import type { Show } from '../../../model/documents.ts';
import { check, contextOf } from '../../engine.ts';
import { fourCable, lead, ShowBuilder } from '../../../testing/build-show.ts';
import { ordinary, without } from '../../../testing/rule-rigs.ts';
import { ruleFaults } from '../../../testing/rule-tester.ts';
import { deadEnd } from './dead-end.ts';

test('fires where it must, and is quiet on the ordinary rig', () => {
  const faults = ruleFaults(deadEnd, {
    clean: {
      'the four-cable rig': ordinary().show,
      'a direct line beside the amp, not used': fourCable().device('boost', 'boost', 'Boost').sound('lead', lead).show,
      'a second guitar on its stand': ordinary().device('spare', 'guitar', 'Second guitar').show,
      'a second guitar at an input that is not selected': selected(),
    },
    faulty: {
      'a loop that is in and has no return cable': { show: without(ordinary().show, 'drive.out'), messages: ['open'] },
      'the preamp sent nowhere': { show: without(ordinary().show, 'combo.send'), messages: ['open', 'open'] },
    },
  });
  expect(faults).toEqual([]);
});

/** Two guitars at a selector, of which a sound uses the first. */
function selected(): Show {
  const side = (id: 'A' | 'B') => ({
    id: `from-${id}`,
    label: `From ${id}`,
    from: `in-${id}`,
    to: 'out',
    active: false,
    when: { controls: { input: [id] } },
  });
  const anatomy = {
    jacks: [
      { id: 'in-A', label: 'In A', kind: 'signal-in' },
      { id: 'in-B', label: 'In B', kind: 'signal-in' },
      { id: 'out', label: 'Out', kind: 'signal-out' },
    ],
    controls: [
      {
        id: 'input',
        label: 'Input',
        domain: { kind: 'choice', values: ['A', 'B'] },
        scope: 'global',
        powerUp: { is: 'value', value: 'A' },
        owner: 'foot',
      },
    ],
    sections: [side('A'), side('B')],
    switches: [{ id: 'input', label: 'Input', actions: [{ next: 'input' }] }],
  };
  const builder = new ShowBuilder()
    .device('first', 'guitar', 'First guitar')
    .device('second', 'guitar', 'Second guitar')
    .device('amp', 'valve-amp-1', 'Amp')
    .device('cab', 'cabinet', 'Cabinet');
  const type = { id: 'selector', revision: 1, name: 'Selector', archetype: 'declared', params: { anatomy } };
  return builder
    .do(addDevice(builder.show, 'selector', type, 'Selector', 'board'))
    .cables(
      'First guitar > Selector In A',
      'Second guitar > Selector In B',
      'Selector > Amp Input',
      'Amp Loudspeaker > Cabinet',
    )
    .sound('a', { wants: { 'selector/input': 'A' } }).show;
}

test('in a silent line an insert with nothing in it is no end: the signal goes on inside', () => {
  const { show } = new ShowBuilder()
    .device('guitar', 'guitar', 'Guitar')
    .device('amp', 'valve-amp-1', 'Amp')
    .device('cab', 'cabinet', 'Cabinet')
    .cables('Guitar > Amp Input')
    .sound('a', {});
  const { findings } = check(contextOf(show), [deadEnd]);
  expect(findings.map(({ data }) => `${data.device} ${data.jack}`)).toEqual(['Amp Loudspeaker']);
});
