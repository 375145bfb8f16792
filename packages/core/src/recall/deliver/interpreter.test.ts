import { describe, expect, test } from '@jest/globals';
import type { CaseRig } from '../../testing/recall-adapter.ts';
import { SmallRig } from '../../testing/small-rig.ts';

/**
 * Tables of device behaviour, written by hand from the definitions (engine §6 and §7, MIDI 1.0) before the
 * interpreter was asked: a device's facts, what is done to it, what it must be afterwards.
 */
type Row = readonly [what: string, done: readonly string[], then: Readonly<Record<string, string | number>>];

const line: CaseRig['topology'] = { sources: ['n0'], dests: ['n1'], edges: [{ id: 'D', from: 'n0', to: 'n1' }] };
const pc = (program: number, ch = 1) => ({ pc: program, ch });
const cc = (number: number, val: number, ch = 1) => ({ cc: number, val, ch });

function rig(
  slots: Record<string, readonly Record<string, number | string>[]>,
  device: object,
  more: Partial<CaseRig> & { readonly switcher?: object } = {},
): CaseRig {
  const { switcher, ...rest } = more;
  const placed = Object.fromEntries(
    Object.entries(slots).map(([name, actions], pos) => [name, { bank: 0, pos, actions }]),
  );
  return {
    controllers: { sw: { slots: placed, ...switcher } },
    devices: { D: { ch: 1, ...device } },
    midi: [['sw', 'out', 'D']],
    topology: line,
    sounds: {},
    ...rest,
  } as CaseRig;
}

function table(name: string, small: CaseRig, rows: readonly Row[]): void {
  describe(name, () => {
    test.each(rows.map((row) => [...row] as [string, string[], Record<string, string | number>]))(
      '%s',
      (_, done, then) => {
        const under = new SmallRig(small).do(...done);
        expect(Object.fromEntries(Object.keys(then).map((ref) => [ref, under.read(ref)]))).toEqual(then);
      },
    );
  });
}

const mixed = { '1': { mix: 10 }, '2': { mix: 20 }, '3': { mix: 30 } };
const mix = { mix: { domain: [0, 10, 20, 30, 90], scope: 'preset' } };
const mixCc = [{ cc: 20, control: 'mix', mode: 'abs' }];

table(
  'a device that reloads a repeated program change',
  rig(
    { A: [pc(1)], M: [cc(20, 90)], B: [pc(2)], X: [pc(9)] },
    { presets: { stored: mixed, powerup: 1 }, controls: mix, cc: mixCc },
  ),
  [
    ['comes up on its preset with what is stored', [], { 'D.preset': 1, 'D.mix': 10 }],
    ['loads what is stored', ['press sw.B'], { 'D.preset': 2, 'D.mix': 20 }],
    ['takes an edit', ['press sw.A', 'press sw.M'], { 'D.preset': 1, 'D.mix': 90 }],
    ['and loses it on a repeat', ['press sw.A', 'press sw.M', 'press sw.A'], { 'D.mix': 10 }],
    ['ignores a program that does not exist', ['press sw.B', 'press sw.X'], { 'D.preset': 2, 'D.mix': 20 }],
  ],
);

table(
  'a device that ignores a repeated program change',
  rig(
    { A: [pc(1)], M: [cc(20, 90)], B: [pc(2)] },
    { presets: { stored: mixed, powerup: 1, repeat: 'ignored' }, controls: mix, cc: mixCc },
  ),
  [
    ['keeps the edit on a repeat', ['press sw.A', 'press sw.M', 'press sw.A'], { 'D.preset': 1, 'D.mix': 90 }],
    ['but loads another', ['press sw.M', 'press sw.B'], { 'D.preset': 2, 'D.mix': 20 }],
  ],
);

table(
  'a device that goes back to the preset before on a repeat',
  rig({ A: [pc(1)], B: [pc(2)] }, { presets: { stored: mixed, powerup: 3, repeat: 'alternates' } }),
  [
    ['first press', ['press sw.B'], { 'D.preset': 2 }],
    ['second press of the same', ['press sw.B', 'press sw.B'], { 'D.preset': 3 }],
    ['third', ['press sw.B', 'press sw.B', 'press sw.B'], { 'D.preset': 2 }],
  ],
);

table(
  'a device that flips its bypass on a repeat',
  rig(
    { A: [pc(1)] },
    {
      presets: { stored: mixed, powerup: 2, repeat: { flips: 'on' } },
      controls: { on: { domain: [0, 1], powerup: 1 } },
    },
  ),
  [
    ['a first program change only loads', ['press sw.A'], { 'D.preset': 1, 'D.on': 1 }],
    ['a repeat flips and does not load', ['press sw.A', 'press sw.A'], { 'D.preset': 1, 'D.on': 0 }],
  ],
);

const banked = { '3': {}, '5': {}, '131': {}, '133': {}, '259': {} };
table(
  'a sticky bank by MSB',
  rig(
    { bank1: [cc(0, 1)], A: [pc(3)], both: [cc(0, 1), pc(5)], lsb: [cc(32, 1)] },
    { presets: { stored: banked, powerup: 3, scheme: 'msb', sticky: true } },
  ),
  [
    ['a bank select alone changes no preset', ['press sw.bank1'], { 'D.preset': 3 }],
    ['it is remembered for the next program change', ['press sw.bank1', 'press sw.A'], { 'D.preset': 131 }],
    ['and for those after it', ['press sw.both', 'press sw.A', 'press sw.A'], { 'D.preset': 131 }],
    ['the other half of a bank select is not understood', ['press sw.lsb', 'press sw.A'], { 'D.preset': 3 }],
  ],
);
table(
  'a bank that is not sticky',
  rig({ bank1: [cc(0, 1)], A: [pc(3)], X: [pc(9)] }, { presets: { stored: banked, powerup: 5, scheme: 'msb' } }),
  [
    ['holds for one program change', ['press sw.bank1', 'press sw.A'], { 'D.preset': 131 }],
    ['then falls home', ['press sw.bank1', 'press sw.A', 'press sw.A'], { 'D.preset': 3 }],
    ['even where the program does not exist', ['press sw.bank1', 'press sw.X', 'press sw.A'], { 'D.preset': 3 }],
  ],
);
table(
  'banks by both halves',
  rig(
    { A: [cc(0, 0), cc(32, 2), pc(3)], half: [cc(32, 1), pc(3)] },
    { presets: { stored: banked, powerup: 3, scheme: 'both', sticky: true } },
  ),
  [
    ['MSB × 128 + LSB', ['press sw.A'], { 'D.preset': 259 }],
    ['one half leaves the other', ['press sw.A', 'press sw.half'], { 'D.preset': 131 }],
  ],
);
table(
  'banks of 100',
  rig(
    { A: [cc(32, 1), pc(99)] },
    { presets: { stored: { '5': {}, '199': {} }, powerup: 5, scheme: 'lsb', bank_size: 100 } },
  ),
  [['bank 1, program 99 is number 199', ['press sw.A'], { 'D.preset': 199 }]],
);

const three = { b: { domain: [0, 1, 2] }, on: { domain: [0, 1] }, other: { domain: [0, 1] } };
table(
  'control changes',
  rig(
    {
      abs: [cc(1, 2)],
      sw63: [cc(2, 63)],
      sw64: [cc(2, 64)],
      tog: [cc(3, 0)],
      next: [cc(4, 0)],
      wrap: [cc(5, 0)],
      excl: [cc(6, 127)],
      armed: [cc(7, 127)],
    },
    {
      controls: three,
      cc: [
        { cc: 1, control: 'b', mode: 'abs' },
        { cc: 2, control: 'on', mode: 'switch' },
        { cc: 3, control: 'on', mode: 'toggle' },
        { cc: 4, control: 'b', mode: 'next', by: 1 },
        { cc: 5, control: 'b', mode: 'next', by: 2, wrap: true },
        { cc: 6, control: 'other', mode: 'switch', exclusive: ['on'] },
        { cc: 7, control: 'other', mode: 'switch', armed: { control: 'b', values: [2] } },
      ],
    },
  ),
  [
    ['absolute: the value sent', ['press sw.abs'], { 'D.b': 2 }],
    ['switch: 63 is off', ['press sw.sw64', 'press sw.sw63'], { 'D.on': 0 }],
    ['switch: 64 is on', ['press sw.sw64'], { 'D.on': 1 }],
    ['toggle: whatever it was', ['press sw.tog', 'press sw.tog', 'press sw.tog'], { 'D.on': 1 }],
    ['next saturates at the end', ['press sw.next', 'press sw.next', 'press sw.next'], { 'D.b': 2 }],
    ['next of three by two, wrapping', ['press sw.wrap', 'press sw.wrap'], { 'D.b': 1 }],
    ['exclusive: switching on puts the other off', ['press sw.sw64', 'press sw.excl'], { 'D.on': 0, 'D.other': 1 }],
    ['not armed: nothing', ['press sw.armed'], { 'D.other': 0 }],
    ['armed: it works', ['press sw.abs', 'press sw.armed'], { 'D.other': 1 }],
  ],
);

const loading = { presets: { stored: mixed, powerup: 3 }, controls: mix, cc: mixCc, busy_ms: 50 };
table(
  'loading that drops what comes meanwhile',
  rig({ soon: [pc(1), cc(20, 90)], late: [pc(1), { wait_ms: 50 }, cc(20, 90)], A: [pc(2)] }, loading),
  [
    ['a control change 0.96 ms after is lost', ['press sw.soon'], { 'D.preset': 1, 'D.mix': 10 }],
    ['one after the load is taken', ['press sw.late'], { 'D.mix': 90 }],
    ['events are spaced until quiet: the next press is heard', ['press sw.soon', 'press sw.A'], { 'D.preset': 2 }],
  ],
);
table(
  'loading that queues what comes meanwhile',
  rig({ soon: [pc(1), cc(20, 90)] }, { ...loading, busy_policy: 'queue' }),
  [['taken afterwards', ['press sw.soon'], { 'D.mix': 90 }]],
);

const amp = (input: object, control: object = {}): object => ({
  controls: { channel: { domain: ['clean', 'lead'], bits: ['in'], table: { '0': 'clean', '1': 'lead' }, ...control } },
  inputs: { in: input },
  foot: { fs: { does: [{ next: 'channel', wrap: true }] } },
});
const wired = (contact: object): Partial<CaseRig> & { readonly switcher: object } => ({
  contacts: [['sw', 'c', 'D', 'in']],
  switcher: { contacts: { c: contact } },
});
const closes = { close: [{ contact: 'c', to: 1 }], open: [{ contact: 'c', to: 0 }] };
table(
  'a latched contact into a level input that holds the channel',
  rig(closes, amp({ kind: 'level' }, { inputs: 'hold' }), wired({ kind: 'latched' })),
  [
    ['closed is lead', ['press sw.close'], { 'D.channel': 'lead' }],
    ['open again', ['press sw.close', 'press sw.open'], { 'D.channel': 'clean' }],
    [
      'the channel follows the contact after a restart of the amp',
      ['press sw.close', 'restart D'],
      { 'D.channel': 'lead' },
    ],
    [
      'the contact opens when the power of its controller goes',
      ['press sw.close', 'restart sw'],
      { 'D.channel': 'clean' },
    ],
  ],
);
table(
  'a latched contact into a level input that writes',
  rig(closes, amp({ kind: 'level' }, { inputs: 'write' }), wired({ kind: 'latched' })),
  [
    ['its own footswitch steps it on', ['press sw.close', 'foot D.fs'], { 'D.channel': 'clean' }],
    [
      'a press that moves no bit does not heal it',
      ['press sw.close', 'foot D.fs', 'press sw.close'],
      { 'D.channel': 'clean' },
    ],
    [
      'one that moves the bit does',
      ['press sw.close', 'foot D.fs', 'press sw.open', 'press sw.close'],
      { 'D.channel': 'lead' },
    ],
  ],
);
table(
  'a contact held for the press',
  rig(closes, amp({ kind: 'level' }, { inputs: 'hold' }), wired({ kind: 'held' })),
  [['opens when the foot leaves', ['press sw.close'], { 'D.channel': 'clean' }]],
);
table(
  'a latched contact into an edge input',
  rig(closes, amp({ kind: 'edge' }, { inputs: 'hold' }), wired({ kind: 'latched' })),
  [
    ['its closing flips', ['press sw.close'], { 'D.channel': 'lead' }],
    ['staying closed does nothing', ['press sw.close', 'press sw.close'], { 'D.channel': 'lead' }],
    ['opening does nothing', ['press sw.close', 'press sw.open'], { 'D.channel': 'lead' }],
    ['closing again flips back', ['press sw.close', 'press sw.open', 'press sw.close'], { 'D.channel': 'clean' }],
  ],
);
table(
  'a pulse at every press',
  rig(closes, amp({ kind: 'edge' }, { inputs: 'hold' }), wired({ kind: 'pulsed', policy: 'every' })),
  [
    ['flips', ['press sw.close'], { 'D.channel': 'lead' }],
    ['and flips back', ['press sw.close', 'press sw.close'], { 'D.channel': 'clean' }],
  ],
);
table(
  'a pulse when the believed state changes',
  rig(closes, amp({ kind: 'edge' }, { inputs: 'hold' }), wired({ kind: 'pulsed', policy: 'belief' })),
  [
    ['flips', ['press sw.close'], { 'D.channel': 'lead' }],
    ['not again', ['press sw.close', 'press sw.close'], { 'D.channel': 'lead' }],
    [
      'the amp restarted, the belief stands',
      ['press sw.close', 'restart D', 'press sw.close'],
      { 'D.channel': 'clean' },
    ],
  ],
);

table(
  'a slot that its controller fires by itself when it comes up',
  rig({ A: [pc(1)], B: [pc(2)] }, { presets: { stored: mixed, powerup: 3 } }, { switcher: { powerup_fires: 'B' } }),
  [
    ['has been fired when all is up', [], { 'D.preset': 2 }],
    ['fires again when its controller restarts', ['press sw.A', 'restart sw'], { 'D.preset': 2 }],
    ['and not when the other device does', ['press sw.A', 'restart D'], { 'D.preset': 3 }],
  ],
);

describe('power-up as it is asked for', () => {
  const any = rig(
    { A: [pc(1)] },
    { presets: { stored: mixed, powerup: 'any' }, controls: { mix: { domain: [0, 10, 20, 30, 90], scope: 'preset' } } },
  );
  const up = (...needs: ConstructorParameters<typeof SmallRig>[1] & object) => new SmallRig(any, needs);
  test('a preset that is asked for comes up', () => {
    expect(up({ device: 'd.D', part: 'preset', value: '2' }).read('D.preset')).toBe(2);
    expect(up({ device: 'd.D', part: 'preset', value: '3' }).read('D.mix')).toBe(30);
  });
  test('a stored value that is asked for comes up by the preset that holds it', () => {
    expect(up({ device: 'd.D', part: 'mix', value: '20' }).read('D.preset')).toBe(2);
  });
  test('of a preset and a value with the same number each goes to its own', () => {
    const alike = rig(
      { A: [pc(1)] },
      {
        presets: { stored: { '1': {}, '2': {} }, powerup: 'any' },
        controls: { level: { domain: [1, 2], scope: 'global', powerup: 'any' } },
      },
    );
    const rigs = [
      ['1', '2'],
      ['2', '1'],
      ['2', '2'],
    ].map(
      ([preset, level]) =>
        new SmallRig(alike, [
          { device: 'd.D', part: 'preset', value: preset },
          { device: 'd.D', part: 'level', value: level },
        ]),
    );
    expect(rigs.map((rig) => [rig.read('D.preset'), rig.read('D.level')])).toEqual([
      [1, 2],
      [2, 1],
      [2, 2],
    ]);
  });
});

test('a contact after a wait acts at its own time, after the messages sent before it', () => {
  const both = {
    controls: {
      channel: { domain: ['clean', 'lead'], bits: ['in'], table: { '0': 'clean', '1': 'lead' }, inputs: 'write' },
    },
    inputs: { in: { kind: 'level' } },
    cc: [{ cc: 9, control: 'channel', mode: 'next', wrap: true }],
  };
  const order = rig(
    { late: [cc(9, 0), { wait_ms: 10 }, { contact: 'c', to: 1 }], once: [cc(9, 0), { contact: 'c', to: 1 }] },
    both,
    wired({ kind: 'latched' }),
  );
  expect(new SmallRig(order).do('press sw.late').read('D.channel')).toBe('lead');
  expect(new SmallRig(order).do('press sw.once').read('D.channel')).toBe('clean');
});

const loops = { L: {} };
table(
  'loops and momentaries',
  rig(
    { in: [{ loop: 'L', to: 1 }], out: [{ loop: 'L', to: 0 }] },
    {},
    {
      switcher: {
        loops,
        momentary: {
          m: { press: [{ save: 'L' }, { loop: 'L', to: 1 }], release: [{ restore: 'L' }] },
          plain: { press: [{ loop: 'L', to: 1 }], release: [{ loop: 'L', to: 0 }] },
        },
      },
    },
  ),
  [
    ['a slot puts it in', ['press sw.in'], { 'sw.L': 1 }],
    ['held: in', ['hold sw.m'], { 'sw.L': 1 }],
    ['let go: as it was', ['press sw.in', 'hold sw.m', 'release sw.m'], { 'sw.L': 1 }],
    ['let go: out, where it was out', ['hold sw.m', 'release sw.m'], { 'sw.L': 0 }],
    [
      'a release that does not remember takes it out',
      ['press sw.in', 'hold sw.plain', 'release sw.plain'],
      { 'sw.L': 0 },
    ],
  ],
);

const stepping = {
  presets: { stored: mixed, powerup: 1, sticky: true },
  foot: { up: { does: [{ next: 'preset', wrap: true }] } },
  cc: [{ cc: 40, control: 'preset', mode: 'next', wrap: false }],
};
table('steps through the presets', rig({ next: [cc(40, 0)] }, stepping), [
  ['by foot', ['foot D.up'], { 'D.preset': 2 }],
  ['by foot round the end', ['foot D.up', 'foot D.up', 'foot D.up'], { 'D.preset': 1 }],
  ['by message, stopping at the end', ['press sw.next', 'press sw.next', 'press sw.next'], { 'D.preset': 3 }],
]);

describe('chains and calls', () => {
  const two = (port: 'out' | 'thru' | 'merge'): CaseRig => ({
    controllers: { sw: { slots: { A: { actions: [pc(2, 2)] } } } },
    devices: { D: { ch: 1 }, E: { ch: 2, presets: { stored: mixed, powerup: 1 } } },
    midi: [
      ['sw', 'out', 'D'],
      ['D', port, 'E'],
    ],
    topology: line,
    sounds: {},
  });
  test.each([
    ['out', 1],
    ['thru', 2],
    ['merge', 2],
  ] as const)('a device passes on through its %s or not', (port, preset) => {
    expect(new SmallRig(two(port)).do('press sw.A').read('E.preset')).toBe(preset);
  });
  test('omni hears every channel', () => {
    const omni = rig({ A: [pc(2, 11)] }, { omni: true, presets: { stored: mixed, powerup: 1 } });
    expect(new SmallRig(omni).do('press sw.A').read('D.preset')).toBe(2);
  });
  test('a device that sends its own recall on moves another', () => {
    const on: CaseRig = {
      controllers: { sw: { slots: { A: { actions: [pc(2)] } } } },
      devices: {
        D: { ch: 1, presets: { stored: mixed, powerup: 1 }, emits: 5 },
        E: { ch: 5, presets: { stored: mixed, powerup: 3 } },
      },
      midi: [
        ['sw', 'out', 'D'],
        ['D', 'out', 'E'],
      ],
      topology: line,
      sounds: {},
    };
    const small = new SmallRig(on).do('press sw.A');
    expect([small.read('D.preset'), small.read('E.preset')]).toEqual([2, 2]);
  });
  test('a called slot makes its bank the current one', () => {
    const called: CaseRig = {
      controllers: {
        app: { slots: { S: { actions: [pc(0, 9)] } } },
        sw: {
          rx: 9,
          pc_map: { '0': 'Z' },
          bank_move: 'fires',
          slots: { A: { bank: 0, pos: 0, actions: [pc(1)] }, Z: { bank: 1, pos: 0, actions: [pc(3)] } },
        },
      },
      devices: { D: { ch: 1, presets: { stored: mixed, powerup: 2 } } },
      midi: [
        ['app', 'out', 'sw'],
        ['sw', 'out', 'D'],
      ],
      topology: line,
      sounds: {},
    };
    expect(new SmallRig(called).do('press app.S', 'down sw').read('D.preset')).toBe(1);
  });
});
