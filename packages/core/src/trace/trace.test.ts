import { diamondRig } from '../testing/large-rigs.ts';
import { describe, expect, test } from '@jest/globals';
import { emptyAnatomy, type Section } from '../model/anatomy.ts';
import type { Show } from '../model/documents.ts';
import { buildWiring } from '../model/wiring.ts';
import { clean, fourCable, lead, ShowBuilder } from '../testing/build-show.ts';
import { Tracer } from './trace.ts';

const traced = (show: Show, sound: string | null = null) =>
  new Tracer(buildWiring(show.rig)).trace(sound === null ? null : show.rig.sounds[sound]);
const line = (show: Show, sound: string) => traced(show, sound).passes.map((pass) => pass.device);

describe('the run of the four-cable rig', () => {
  const { show } = fourCable().sound('lead', lead).sound('clean', clean);

  test('reads as ten passes: the switcher four times, the combo twice', () => {
    expect(line(show, 'lead')).toEqual([
      'guitar',
      'switcher',
      'drive',
      'switcher',
      'combo',
      'switcher',
      'delay',
      'switcher',
      'combo',
      'cabinet',
    ]);
  });
  test('says by which jacks each pass comes and goes, and what it does there', () => {
    const { passes } = traced(show, 'lead');
    expect(passes[3]).toMatchObject({ entries: ['return-1'], exits: ['send-2'], activeSections: [] });
    expect(passes[4]).toMatchObject({ entries: ['in'], exits: ['send'], activeSections: ['Preamp, lead'] });
    expect(passes[8]).toMatchObject({ entries: ['return'], exits: ['speaker'], activeSections: ['Power amp'] });
  });
  test('what is bypassed hangs as a jumper under the pass that jumps it, and is no pass', () => {
    const trace = traced(show, 'clean');
    expect(trace.passes.map((pass) => pass.device)).toEqual([
      'guitar',
      'switcher',
      'combo',
      'switcher',
      'combo',
      'cabinet',
    ]);
    expect(trace.jumpers).toEqual([
      expect.objectContaining({ loop: 'switcher/loop-1', holds: ['drive'], pass: 1 }),
      expect.objectContaining({ loop: 'switcher/loop-3', holds: ['delay'], pass: 3 }),
    ]);
  });
  test('an in-line pedal that its own switch bypasses stays a pass, drawn thin', () => {
    const builder = new ShowBuilder()
      .device('guitar', 'guitar', 'Guitar')
      .device('boost', 'boost', 'Boost')
      .device('desk', 'desk', 'Desk')
      .cables('Guitar > Boost', 'Boost > Desk')
      .sound('off', { pedals: { boost: 'off' } })
      .sound('on', { pedals: { boost: 'on' } });
    expect(traced(builder.show, 'off').passes.map((pass) => pass.bypassed)).toEqual([false, true, false]);
    expect(traced(builder.show, 'on').passes.map((pass) => pass.bypassed)).toEqual([false, false, false]);
  });
  test('the loop of the amp closes itself only where nothing is plugged into its return', () => {
    const straight = new ShowBuilder()
      .device('guitar', 'guitar', 'Guitar')
      .device('combo', 'valve-combo', 'Combo')
      .device('cabinet', 'cabinet', 'Cabinet')
      .cables('Guitar > Combo Input', 'Combo Loudspeaker > Cabinet')
      .sound('a');
    expect(traced(straight.show, 'a')).toMatchObject({ sounds: true });
    const open = straight.device('delay', 'midi-delay', 'Delay').cables('Delay Out > Combo Return');
    expect(traced(open.show, 'a')).toMatchObject({ sounds: false });
  });
  test('pulling one cable silences it and the branch is a dead end', () => {
    const {
      [Object.keys(show.rig.cables).find(
        (id) => show.rig.cables[id].plugs[0].jack === 'send' && show.rig.cables[id].plugs[0].device === 'combo',
      )!]: _,
      ...cables
    } = show.rig.cables;
    const trace = traced({ ...show, rig: { ...show.rig, cables } }, 'lead');
    expect(trace.sounds).toBe(false);
    expect(trace.passes.map((pass) => pass.device)).toEqual(['guitar', 'switcher', 'drive', 'switcher', 'combo']);
    expect(trace.deadEnds).toEqual([{ device: 'combo', jack: 'send' }]);
  });
});

const declared = (id: string, jacks: string[], sections: Partial<Section>[], more: object = {}) =>
  ({
    id,
    name: id,
    order: id,
    place: 'board',
    channel: null,
    firstPresetNumber: 1,
    presets: {},
    plannedSwitches: [],
    owners: {},
    powerUps: {},
    momentaries: {},
    type: {
      id,
      revision: 1,
      name: id,
      archetype: 'declared',
      params: {
        anatomy: {
          jacks: jacks.map((jack) => ({
            id: jack,
            label: jack,
            kind: jack.startsWith('in') ? 'signal-in' : 'signal-out',
          })),
          sections: sections.map((section, i) => ({ id: `s${i}`, label: `s${i}`, active: true, ...section })),
          ...more,
        },
      },
    },
  }) as Show['rig']['devices'][string];

function drawn(
  devices: readonly Show['rig']['devices'][string][],
  cables: readonly (readonly [string, string])[],
): Show {
  const builder = new ShowBuilder();
  const plug = (end: string) => ({ device: end.split('.')[0], jack: end.split('.')[1] });
  builder.show = {
    ...builder.show,
    rig: {
      ...builder.show.rig,
      devices: Object.fromEntries(devices.map((device) => [device.id, device])),
      cables: Object.fromEntries(
        cables.map(([from, to], i) => [
          `c${i}`,
          {
            id: `c${i}`,
            tag: `C${i}`,
            order: `a${i}`,
            kind: 'signal' as const,
            plugs: [plug(from), ...to.split('+').map(plug)],
            length: null,
            loom: null,
          },
        ]),
      ),
    },
  };
  return builder.show;
}

describe('branches, sums and cycles', () => {
  const source = declared('source', ['out'], [{ from: '*s', to: 'out' }], { source: '*s' });
  const end = declared(
    'end',
    ['in', 'in2'],
    [
      { from: 'in', to: '*d' },
      { from: 'in2', to: '*d' },
    ],
    { destination: '*d' },
  );
  const effect = (id: string) => declared(id, ['in', 'out'], [{ from: 'in', to: 'out' }]);

  test('a Y cord parts the run; where it meets again is a sum of both branches', () => {
    const show = drawn(
      [source, effect('a'), effect('b'), end],
      [
        ['source.out', 'a.in+b.in'],
        ['a.out', 'end.in'],
        ['b.out', 'end.in2'],
      ],
    );
    const trace = traced(show);
    expect(trace.passes.map((pass) => [pass.device, pass.column])).toEqual([
      ['source', 0],
      ['a', 1],
      ['b', 1],
      ['end', 2],
    ]);
    expect(trace.sums).toEqual([{ pass: 3, from: [1, 2] }]);
  });
  test('an unused direct output is no dead end, a lost branch is one', () => {
    const split = declared(
      'split',
      ['in', 'out', 'out-direct'],
      [
        { from: 'in', to: 'out' },
        { from: 'in', to: 'out-direct' },
      ],
    );
    expect(
      traced(
        drawn(
          [source, split, end],
          [
            ['source.out', 'split.in'],
            ['split.out', 'end.in'],
          ],
        ),
      ).deadEnds,
    ).toEqual([]);
  });
  test('30 diamonds in series are summarised, not enumerated', () => {
    const stages = Array.from({ length: 30 }, (_, i) =>
      declared(
        `d${i}`,
        ['in', 'out'],
        [
          { from: 'in', to: '*a' },
          { from: 'in', to: '*b' },
          { from: '*a', to: 'out' },
          { from: '*b', to: 'out' },
        ],
      ),
    );
    const cables = stages.map((_, i): [string, string] => [i === 0 ? 'source.out' : `d${i - 1}.out`, `d${i}.in`]);
    expect(traced(drawn([source, ...stages, end], [...cables, ['d29.out', 'end.in']])).passes).toHaveLength(32);
  });
  test('30 pedals beside 30 others, joined by mixers, are 92 passes with 30 sums', () => {
    const { passes, sums } = new Tracer(buildWiring(diamondRig().rig)).trace(null);
    expect([passes.length, sums.length]).toEqual([92, 30]);
    expect(passes.at(-1)!.column).toBe(61);
  });
  const mixer = declared(
    'mixer',
    ['in', 'in2', 'out', 'out2'],
    [
      { from: 'in', to: 'out', active: false },
      { from: 'in2', to: 'out', active: false },
      { from: 'in', to: 'out2', active: false },
      { from: 'in2', to: 'out2', active: false },
    ],
  );
  test('a send that comes back into itself is a cycle; wires alone are none', () => {
    const round = drawn(
      [source, mixer, effect('echo'), end],
      [
        ['source.out', 'mixer.in'],
        ['mixer.out', 'end.in'],
        ['mixer.out2', 'echo.in'],
        ['echo.out', 'mixer.in2'],
      ],
    );
    expect(traced(round).cycles.map((cycle) => cycle.devices)).toEqual([['echo']]);
    const straight = drawn(
      [source, mixer, end],
      [
        ['source.out', 'mixer.in'],
        ['mixer.out', 'end.in'],
      ],
    );
    expect(traced(straight).cycles).toEqual([]);
  });
  // Source: engine §2; a return of gain g has the spectral radius g, two in parallel 2 g (−3 dB = 0.708).
  test.each([
    [1, -3, 0.708, 'rings'],
    [2, -3, 1.416, 'howls'],
    [1, 0, 1, 'howls'],
    [1, -9, 0.355, 'quiet'],
  ] as const)('%i return(s) at %i dB: radius %f, it %s', (returns, gainDb, radius, verdict) => {
    const echo = declared(
      'echo',
      ['in', 'out'],
      Array.from({ length: returns }, () => ({ from: 'in', to: 'out', gainDb })),
    );
    const round = drawn(
      [source, mixer, echo, end],
      [
        ['source.out', 'mixer.in'],
        ['mixer.out', 'end.in'],
        ['mixer.out2', 'echo.in'],
        ['echo.out', 'mixer.in2'],
      ],
    );
    const [cycle] = traced(round).cycles;
    expect(cycle.radius).toBeCloseTo(radius, 3);
    expect(cycle.verdict).toBe(verdict);
  });
});

test('normals in a circle are followed once: nothing howls, and what goes on is heard', () => {
  const normal = (from: string, to: string, jack: string) => ({
    id: `${from}-${to}`.replaceAll('*', ''),
    label: 'Normal',
    from,
    to,
    active: false,
    when: { plugs: { [jack]: false } },
  });
  const anatomy = {
    jacks: ['a', 'b', 'c'].flatMap((id) => [
      { id: `${id}-in`, label: `${id} in`, kind: 'signal-in' as const },
      { id: `${id}-out`, label: `${id} out`, kind: 'signal-out' as const },
    ]),
    sections: [
      normal('*a', '*b', 'b-in'),
      normal('*b', '*c', 'c-in'),
      normal('*c', '*a', 'a-out'),
      { id: 'in', label: 'In', from: 'a-in', to: '*a', active: false },
      { id: 'out', label: 'Out', from: '*c', to: 'c-out', active: false },
    ],
  };
  const { show } = new ShowBuilder()
    .device('guitar', 'guitar', 'Guitar')
    .device('bay', 'blank-device', 'Bay', {}, { anatomy: { ...emptyAnatomy, ...anatomy } })
    .device('amp', 'valve-amp-1', 'Amp')
    .text('cabinet; guitar > bay a in; bay c out > amp; amp > cabinet');
  const trace = new Tracer(buildWiring(show.rig)).trace(null);
  expect(trace.sounds).toBe(true);
  expect(trace.passes.map(({ device }) => device)).toEqual(['guitar', 'bay', 'amp', 'cabinet']);
  expect(trace.cycles.filter(({ verdict }) => verdict !== 'quiet')).toEqual([]);
});
