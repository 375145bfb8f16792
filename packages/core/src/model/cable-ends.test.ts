import { describe, expect, test } from '@jest/globals';
import { patchList } from '../paper/patch-list.ts';
import { fourCable } from '../testing/build-show.ts';
import { endsOf } from './cable-ends.ts';
import type { Plug } from './rig.ts';
import { buildWiring } from './wiring.ts';

const builder = fourCable().device('boost', 'boost', 'Boost').device('boost-2', 'boost', 'Boost 2');
const wiring = buildWiring(builder.show.rig);
const plug = (text: string): Plug => ({ device: text.split('/')[0], jack: text.split('/')[1] });
const joinedEnds = (...plugs: readonly string[]) => {
  const { from, to } = endsOf(wiring, { plugs: plugs.map(plug) });
  return [from, to].map((ends) => ends.map((end) => `${end.index}:${end.plug.device}/${end.plug.jack}`).join(' '));
};

describe('the ends of a cable', () => {
  test.each([
    ['a plain one, out first', ['boost/out', 'boost-2/in'], ['0:boost/out', '1:boost-2/in']],
    ['a plain one, in first', ['boost-2/in', 'boost/out'], ['1:boost/out', '0:boost-2/in']],
    [
      'a cord that splits',
      ['boost/out', 'boost-2/in', 'switcher/return-4'],
      ['0:boost/out', '1:boost-2/in 2:switcher/return-4'],
    ],
    [
      'a cord that joins',
      ['boost/out', 'switcher/return-4', 'boost-2/out'],
      ['0:boost/out 2:boost-2/out', '1:switcher/return-4'],
    ],
    [
      'outputs alone: the first counts as what it comes from',
      ['boost/out', 'boost-2/out'],
      ['0:boost/out', '1:boost-2/out'],
    ],
    [
      'inputs alone',
      ['boost/in', 'boost-2/in', 'switcher/return-4'],
      ['0:boost/in', '1:boost-2/in 2:switcher/return-4'],
    ],
    ['MIDI', ['switcher/midi-in', 'delay/midi-thru'], ['1:delay/midi-thru', '0:switcher/midi-in']],
    ['a contact', ['combo/remote-1', 'switcher/contact-1'], ['1:switcher/contact-1', '0:combo/remote-1']],
  ] as const)('%s', (_, plugs, ends) => {
    expect(joinedEnds(...plugs)).toEqual(ends);
  });

  test('stand all on the patch list, each on its side', () => {
    const { show } = builder.cables('Boost + Boost 2 > Switcher Return 4');
    const lines = patchList(show, buildWiring(show.rig)).groups.flatMap(({ lines: own }) => own);
    expect(lines.map(({ cells }) => cells.slice(1, 3))).toContainEqual([
      'Boost, Out + Boost 2, Out',
      'Switcher, Return 4',
    ]);
  });
});
