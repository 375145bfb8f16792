import { describe, expect, test } from '@jest/globals';
import { applySteps, invertSteps } from '../change/steps.ts';
import { feedLoad, setTypePower, setUnitPower } from '../change/power.ts';
import { readRigText } from '../entry/read-rig-text.ts';
import { addRigText } from '../entry/add-rig-text.ts';
import type { Command } from '../change/command.ts';
import { isWiredAlike } from '../model/wiring.ts';
import type { Show } from '../model/documents.ts';
import type { Plug } from '../model/rig.ts';
import { validateRig } from '../model/validate.ts';
import { takeTypical } from '../change/build.ts';
import { typicalFactsFor } from '../catalogue/library.ts';
import { openDevice, takeType } from '../change/set-anatomy.ts';
import { catalogue, typeById } from '../catalogue/types.ts';
import { poweredTypes } from '../catalogue/power.ts';
import { judgeSupply } from '../supply/judge.ts';
import {
  lookedUp,
  plugs,
  powered,
  poweredBuilder,
  withNeeds,
  withPowerCable,
  withPowerSettings,
  withSupply,
  withTypePower,
  withUnitPower,
} from '../testing/power-rigs.ts';
import { ordinary } from '../testing/rule-rigs.ts';
import { batteryLives } from './battery.ts';
import { mainsChain, standsMains, wallAmps, wallVa } from './mains.ts';
import { planPower, planPowerNow, type PowerPlan } from './plan.ts';
import { supplyProblemOf } from './problem-of.ts';
import { powerInUse } from './wired.ts';
import { leadWords, planChanges } from './words.ts';
import { givePower } from './write.ts';

function done(show: Show, command: Command | null): Show {
  const result = applySteps(show, command!.steps);
  if (!result.ok) throw new Error(JSON.stringify(result.problems));
  return result.value;
}
function planned(show: Show): PowerPlan {
  const answer = planPowerNow(show.rig);
  if (answer.is === 'refused') throw new Error(JSON.stringify(answer.problems));
  return answer.plan;
}
const fedBy = (show: Show): Record<string, string> =>
  Object.fromEntries(
    powerInUse(show.rig).loads.map(({ device, by }) => {
      const feed = powerInUse(show.rig).feeds.find(({ loads }) => loads.some((load) => load.device.id === device.id));
      return [device.id, feed ? feed.outputs.map(({ output }) => output.id).join('+') : by];
    }),
  );
const typed = (show: Show, text: string): Show => done(show, addRigText(show, readRigText(show, text)));

describe('as it is wired', () => {
  test('each output with its loads, and what is drawn', () => {
    const { feeds, isPlanned } = powerInUse(powered().rig);
    expect(isPlanned).toBe(true);
    expect(
      feeds
        .filter(({ loads }) => loads.length > 0)
        .map(({ outputs, drawn, volts, ma }) => [outputs[0].output.label, drawn, volts, ma]),
    ).toEqual([
      ['Out 1', 12, 9, 100],
      ['Out 6', 150, 9, 300],
      ['Out 7', 200, 9, 500],
    ]);
    expect(feeds.every(({ lacksHeadroom }) => !lacksHeadroom)).toBe(true);
  });
  test('a rig without a supply has no power planned', () => {
    expect(powerInUse(ordinary().show.rig)).toMatchObject({ isPlanned: false, feeds: [] });
  });
  test('power cables are typed like any other', () => {
    const show = typed(ordinary().device('supply', 'supply', 'Supply').show, 'supply out 3 > delay');
    expect(fedBy(show)).toEqual({ switcher: 'nothing', drive: 'nothing', delay: 'dc-3' });
    const chain = typed(show, 'supply out 5 > switcher + drive');
    expect(fedBy(chain)).toEqual({ switcher: 'dc-5', drive: 'dc-5', delay: 'dc-3' });
    const alone = typed(ordinary().show, 'power supply > drive');
    expect(fedBy(alone)).toMatchObject({ drive: 'dc-1' });
  });
  test('two outputs in series: the volts add, the lower current counts', () => {
    const show = withPowerCable(powered(), 'drive', {
      plugs: plugs('supply/dc-1', 'supply/dc-2', 'drive/power-in'),
      lead: { join: 'series' },
    });
    expect(powerInUse(show.rig).feeds[0]).toMatchObject({ how: 'series', volts: 18, ma: 100, drawn: 12 });
  });
  test('a limit in VA counts volts; in series both outputs carry the current', () => {
    const show = withSupply(
      withPowerCable(powered(), 'drive', {
        plugs: plugs('supply/dc-1', 'supply/dc-2', 'drive/power-in'),
        lead: { join: 'series' },
      }),
      'supply',
      {
        limits: [
          { outputs: ['dc-1', 'dc-2'], va: 5 },
          { outputs: ['dc-1'], ma: 50 },
        ],
      },
    );
    expect(powerInUse(show.rig).limits.map(({ taken, unit }) => [Math.round(taken * 1000) / 1000, unit])).toEqual([
      [0.216, 'VA'],
      [12, 'mA'],
    ]);
  });
  test('what it is changed by alone is read anew', () => {
    const show = withNeeds(powered(), 'drive', { ma: 85 });
    expect(powerInUse(show.rig).feeds[0].lacksHeadroom).toBe(true);
    expect(powerInUse(withPowerSettings(show, { headroom: 90 }).rig).feeds[0].lacksHeadroom).toBe(false);
  });
});

describe('the plan', () => {
  const bare = (): Show =>
    ['drive', 'switcher', 'delay'].reduce((show, id) => withPowerCable(show, id, null), powered());
  test('gives every piece an output, written as cables; undone it is as it was', () => {
    const show = bare();
    const { problem, found } = planned(show);
    expect(found.cost).toMatchObject({ unpowered: 0, withoutHeadroom: 0, digitalSharing: 0 });
    const command = givePower(show, problem, found.best!)!;
    const next = done(show, command);
    expect(Object.values(fedBy(next)).every((by) => by.startsWith('dc-'))).toBe(true);
    expect(applySteps(next, invertSteps(command.steps))).toEqual({ ok: true, value: show });
  });
  test('law: what is written costs, read again, what the plan costs', () => {
    for (const [count, show] of [bare(), lookedUp(bare()), powered(), hungry(), positive()].entries()) {
      const { problem, found } = planned(show);
      const next = done(show, givePower(show, problem, found.best!) ?? { command: { name: '', facts: {} }, steps: [] });
      const { feeds, loads } = powerInUse(next.rig);
      const used = feeds.filter((feed) => feed.loads.length > 0);
      expect({
        count,
        unpowered: loads.filter(({ by }) => by === 'nothing' || by === 'loose').length,
        withoutHeadroom: used.filter((feed) => feed.lacksHeadroom).flatMap((feed) => feed.loads).length,
        onBattery: loads.filter(({ by }) => by === 'battery').length,
        joins: used.filter(({ how }) => how !== 'alone').length,
        outputsUsed: used.flatMap(({ outputs }) => outputs).length,
      }).toMatchObject({
        count,
        unpowered: found.cost!.unpowered,
        withoutHeadroom: found.cost!.withoutHeadroom,
        onBattery: found.cost!.onBattery,
        joins: found.cost!.joins,
        outputsUsed: found.cost!.outputsUsed,
      });
      // Planned again, nothing more is to be changed for the better.
      expect(planned(next).found.cost).toEqual(found.cost);
    }
  });
  test('cables that stay keep their tags and lengths', () => {
    const show = withPowerCable(powered(), 'delay', { tag: 'DLY', length: 0.5 as never });
    const { problem, found } = planned(show);
    const next = done(show, givePower(show, problem, found.best!) ?? { command: { name: '', facts: {} }, steps: [] });
    const kept = Object.values(next.rig.cables).filter(({ tag }) => tag === 'DLY');
    expect(kept).toHaveLength(1);
  });
  test('what is well where it is stays there', () => {
    // Three pieces, each on an output with headroom: nothing is better, so nothing moves.
    const { problem, found } = planned(powered());
    expect(givePower(powered(), problem, found.best!)).toBeNull();
    // One without headroom moves, the others stay.
    const show = withPowerCable(powered(), 'delay', { plugs: plugs('supply/dc-1', 'delay/power-in') });
    const tight = withPowerCable(show, 'drive', { plugs: plugs('supply/dc-2', 'drive/power-in') });
    const next = planned(tight);
    expect(planChanges(tight.rig, next.problem, next.found.best!).map(({ device }) => device)).toEqual(['delay']);
  });
  test('what is held stays', () => {
    const show = withUnitPower(powered(), 'drive', { held: true });
    const { problem, found } = planned(show);
    const next = givePower(show, problem, found.best!);
    expect(fedBy(next ? done(show, next) : show).drive).toBe('dc-1');
  });
  test('a voltage that has to be set is set', () => {
    const show = withNeeds(bare(), 'delay', { volts: [18, 18], ma: 150 });
    const { problem, found } = planned(show);
    const next = done(show, givePower(show, problem, found.best!));
    expect(Object.values(next.rig.devices.supply.power?.volts ?? {})).toEqual([18]);
    expect(powerInUse(next.rig).feeds.find(({ loads }) => loads[0]?.device.id === 'delay')?.volts).toBe(18);
  });
  test('a supply that is too small: which pieces conflict, and what helps', () => {
    const show = withSupply(bare(), 'supply', {
      outputs: powered().rig.devices.supply.type.power!.supply!.outputs.slice(0, 1),
      limits: [],
      joins: [],
    });
    const { found, conflict, cures } = planned(show);
    // The delay and the switcher draw more than the one output gives; the drive is on it.
    expect(found.cost!.unpowered).toBe(2);
    expect(conflict).toMatchObject({ devices: { length: 1 }, isSmallest: true });
    expect(['switcher', 'delay']).toContain(conflict!.devices[0]);
    expect(cures.length).toBeGreaterThan(0);
    for (const { left } of cures) expect(left).toBeLessThan(2);
    expect(cures.map(({ cure }) => cure.kind)).toContain('leave');
  });
  test('a lead that is missing is offered', () => {
    const show = withNeeds(bare(), 'drive', { centre: '+', battery: undefined });
    const { found, cures } = planned(show);
    expect(found.cost!.unpowered).toBe(1);
    expect(cures).toContainEqual({ cure: { kind: 'lead', lead: 'reversing' }, left: 0 });
  });
  test('ended in time: the best so far, and no cure that was not tried', () => {
    const steps = planPower(bare().rig, () => true);
    const step = steps.next();
    expect(step.done && step.value.is === 'planned' && step.value.plan.cures).toEqual([]);
  });
  test('through a line of a multi-core, plugged in at its far end', () => {
    // It draws what only the two largest outputs give, and the first of those is in the line.
    const hub = withNeeds(poweredBuilder().device('snake', 'multi-core-power', 'Multi-core').show, 'delay', {
      ma: 390,
    });
    const show = withPowerCable(hub, 'delay', { plugs: plugs('supply/dc-7', 'snake/power-1-in') });
    const { problem, found } = planned(show);
    const next = done(show, givePower(show, problem, found.best!));
    expect(fedBy(next).delay).toMatch(/^dc-/);
    const { loads } = powerInUse(next.rig);
    const far = Object.values(next.rig.cables).filter(({ plugs: ends }) =>
      ends.some(({ jack }) => jack === 'power-1-out'),
    );
    // Whatever hangs on that line loses a little on the way.
    for (const load of loads) expect(leadWords(load, undefined).includes('V lost on the way')).toBe(load.lost >= 0.05);
    for (const { device, lost } of loads)
      expect(lost > 0).toBe(far.some(({ plugs: ends }) => ends.some((end) => end.device === device.id)));
    expect(far.length).toBeGreaterThan(0);
  });

  /** One output of 500 mA for all, by a chain lead that the patch has. */
  function hungry(): Show {
    const show = withSupply(withNeeds(powered(), 'delay', { ma: 250 }), 'supply', {
      outputs: powered().rig.devices.supply.type.power!.supply!.outputs.slice(6, 7),
      limits: [],
      joins: [],
    });
    const cables = Object.fromEntries(Object.entries(show.rig.cables).filter(([, { kind }]) => kind !== 'power'));
    const all = { ...show, rig: { ...show.rig, cables } };
    return withPowerSettings(all, { leads: { reversing: 0, adapter: 0, chains: [3] } });
  }
  /** A piece with its earth on plus that reverses, and has no output of its own left but for its battery. */
  function positive(): Show {
    return withPowerSettings(withNeeds(bare(), 'drive', { earth: '+', centre: '+' }), {
      leads: { reversing: 1, adapter: 0, chains: [] },
    });
  }
  test('one output for all: a chain lead, and for headroom one piece on its battery', () => {
    const { found } = planned(hungry());
    expect(found.cost).toMatchObject({
      unpowered: 0,
      withoutHeadroom: 0,
      onBattery: 1,
      specialLeads: 1,
      outputsUsed: 1,
    });
    expect(judgeSupply(planned(hungry()).problem, found.best!)).toEqual(found.cost);
  });
});

describe('by hand', () => {
  const at = (device: string, jack: string): Plug => ({ device, jack }) as Plug;
  test('to a free output, to one that feeds something, to the battery, to nothing', () => {
    const show = powered();
    expect(fedBy(done(show, feedLoad(show, 'drive', at('supply', 'dc-2')))).drive).toBe('dc-2');
    const chain = done(show, feedLoad(show, 'drive', at('supply', 'dc-6')));
    expect(fedBy(chain)).toMatchObject({ drive: 'dc-6', switcher: 'dc-6' });
    expect(fedBy(done(chain, feedLoad(chain, 'switcher', 'nothing')))).toMatchObject({
      drive: 'dc-6',
      switcher: 'nothing',
    });
    const battery = done(chain, feedLoad(chain, 'drive', 'battery'));
    expect(fedBy(battery)).toMatchObject({ drive: 'battery', switcher: 'dc-6' });
    expect(fedBy(done(battery, feedLoad(battery, 'drive', at('supply', 'dc-1')))).drive).toBe('dc-1');
  });
  test('the lead does what the piece needs, and forgets it when the piece goes', () => {
    const show = powered();
    const chain = done(show, feedLoad(show, 'drive', at('supply', 'dc-6'), { reverses: true, adapts: true }));
    const lead = (of: Show) =>
      Object.values(of.rig.cables).find(
        ({ plugs: ends }) =>
          ends.some(({ device }) => device === 'switcher') && ends.some(({ jack }) => jack === 'dc-6'),
      )!.lead;
    expect(lead(chain)).toEqual({ reverses: ['drive'], adapts: ['drive'] });
    expect(lead(done(chain, feedLoad(chain, 'drive', 'nothing')))).toBeUndefined();
  });
  test('facts that take a jack away take its cable with them', () => {
    const show = powered();
    const next = done(show, setTypePower(show, 'supply', undefined));
    expect(Object.values(next.rig.cables).some(({ kind }) => kind === 'power')).toBe(false);
    expect(fedBy(next).drive).toBe('nothing');
  });
  test('what is not said any more leaves no trace', () => {
    const show = powered();
    const held = done(show, setUnitPower(show, 'drive', { held: true }));
    expect(done(held, setUnitPower(held, 'drive', { held: undefined }))).toEqual(show);
  });
});

test('signal and proof are not worked out again when power changes', () => {
  const show = powered();
  const { problem, found } = planned(withUnitPower(show, 'drive', {}));
  expect(isWiredAlike(show.rig, withPowerCable(show, 'drive', null).rig)).toBe(true);
  expect(isWiredAlike(show.rig, withNeeds(show, 'drive', { ma: 99 }).rig)).toBe(true);
  expect(isWiredAlike(show.rig, withUnitPower(show, 'drive', { held: true }).rig)).toBe(true);
  expect(found.best && problem.loads).toHaveLength(3);
});

describe('mains', () => {
  const chained = (): Show =>
    withTypePower(
      poweredBuilder()
        .device('strip', 'outlet-strip', 'Strip')
        .device('second', 'outlet-strip', 'Second strip')
        .cables(
          'Strip Outlet 1 > Second strip Mains',
          'Second strip Outlet 1 > Combo Mains',
          'Strip Outlet 2 > Supply Mains',
        ).show,
      'combo',
      (power) => power,
    );
  test('from the wall to the last inlet, each with what hangs on it', () => {
    expect(mainsChain(chained().rig).map(({ device, depth, va }) => [device.id, depth, va])).toEqual([
      ['strip', 0, 215],
      ['supply', 1, 35],
      ['second', 1, 180],
      ['combo', 2, 180],
    ]);
    const chain = mainsChain(chained().rig);
    expect(wallVa(chain)).toBe(215);
    expect(wallAmps(chain, { volts: 230 })).toBeCloseTo(0.935, 3);
  });
  test('what is plugged into no outlet goes into the wall', () => {
    expect(mainsChain(powered().rig).map(({ device, depth }) => [device.id, depth])).toEqual([
      ['combo', 0],
      ['supply', 0],
    ]);
  });
  test('leads in a circle hang nowhere, and end', () => {
    const show = chained();
    const circle = typed(withoutMains(show, 'strip'), 'second strip outlet 2 > strip mains');
    expect(mainsChain(circle.rig).map(({ device }) => device.id)).not.toContain('strip');
    expect(() => wallVa(mainsChain(circle.rig))).not.toThrow();
  });
  const withoutMains = (show: Show, device: string): Show => ({
    ...show,
    rig: {
      ...show.rig,
      cables: Object.fromEntries(
        Object.entries(show.rig.cables).filter(
          ([, { plugs: ends }]) => !ends.some((end) => end.device === device && end.jack === 'mains-in'),
        ),
      ),
    },
  });
  test.each([
    [230, 50, 'yes'],
    [220, 50, 'yes'],
    [120, 60, 'volts'],
    [230, 400, 'hertz'],
  ] as const)('a combo for 220 to 240 V, 50 or 60 Hz, at %i V %i Hz: %s', (volts, hertz, expected) => {
    expect(standsMains(powered().rig.devices.combo, { id: 'v', name: 'V', volts, hertz })).toBe(expected);
  });
});

test('batteries: watt-hours by watts, milliampere-hours by milliamperes (worked by hand)', () => {
  const show = withUnitPower(
    withPowerCable(withSupply(powered(), 'supply', { battery: { wh: 36, efficiency: 50 } }), 'drive', null),
    'drive',
    { onBattery: true },
  );
  // 350 mA at 9 V are 3.15 W of 18 Wh; 12 mA of 500 mAh.
  expect(
    batteryLives(show.rig, powerInUse(show.rig)).map(({ device, hours }) => [
      device.id,
      Math.round(hours! * 100) / 100,
    ]),
  ).toEqual([
    ['supply', 5.71],
    ['drive', 41.67],
  ]);
});

test('a rig from before: what its types say today is taken in one edit, and what was said stays', () => {
  const show = withNeeds(powered(), 'drive', { ma: 33 });
  const old = {
    ...show,
    rig: {
      ...show.rig,
      devices: Object.fromEntries(
        Object.entries(show.rig.devices).map(([id, device]) => {
          const { power: _, body: __, ...type } = device.type;
          return [id, id === 'drive' ? device : { ...device, type }];
        }),
      ),
      cables: {},
    },
  } as Show;
  const facts = typicalFactsFor(Object.values(old.rig.devices), catalogue);
  expect(facts.map(({ id }) => id)).toEqual(['switcher', 'combo', 'delay', 'cabinet', 'supply']);
  const next = done(old, takeTypical(old, facts));
  expect(next.rig.devices.delay.type.power).toEqual(show.rig.devices.delay.type.power);
  expect(next.rig.devices.drive.type.power?.needs?.ma).toBe(33);
  expect(typicalFactsFor(Object.values(next.rig.devices), catalogue)).toEqual([]);
});

test('written out, or of another type, a device keeps its jacks of power and what was looked up', () => {
  const show = withNeeds(lookedUp(powered()), 'drive', { ma: 33 });
  const opened = done(show, openDevice(show, 'drive', 'own'));
  expect(opened.rig.devices.drive.type.power).toEqual(show.rig.devices.drive.type.power);
  expect(opened.rig.devices.drive.type.body).toEqual(show.rig.devices.drive.type.body);
  const { power: _, ...bare } = typeById('distortion').type;
  const taken = done(show, takeType(show, 'drive', bare));
  expect(taken.rig.devices.drive.type.power?.needs?.ma).toBe(33);
  const typical = done(powered(), takeType(powered(), 'drive', typeById('distortion').type));
  expect(typical.rig.devices.drive.type.power).toEqual(typeById('distortion').type.power);
});

describe('types', () => {
  test('every type with power facts is in the catalogue, and holds up', () => {
    for (const id of poweredTypes) expect(catalogue.map(({ type }) => type.id)).toContain(id);
    const rig = catalogue.reduce((show, { type }) => show.device(`the-${type.id}`, type.id, type.name), ordinary()).show
      .rig;
    expect(validateRig(rig)).toMatchObject({ ok: true });
  });
  test.each<readonly [string, (show: Show) => Show]>([
    ['negative current', (show) => withNeeds(show, 'drive', { ma: -1 })],
    ['not a number', (show) => withNeeds(show, 'drive', { ma: Number.NaN })],
    ['a range upside down', (show) => withNeeds(show, 'drive', { volts: [12, 9] })],
    ['a limit over no output', (show) => withSupply(show, 'supply', { limits: [{ outputs: ['dc-99'], ma: 1 }] })],
    ['a limit in nothing', (show) => withSupply(show, 'supply', { limits: [{ outputs: ['dc-1'] }] })],
    [
      'an output joined with itself',
      (show) => withSupply(show, 'supply', { joins: [{ outputs: ['dc-1', 'dc-1'], how: 'series' }] }),
    ],
    ['a million volts', (show) => withNeeds(show, 'drive', { volts: [9, 1_000_000] })],
  ])('refused: %s', (_, wrong) => {
    expect(validateRig(wrong(powered()).rig).ok).toBe(false);
  });
});

test('a problem names each output by its supply', () => {
  const { outputs, loads, leads } = supplyProblemOf(powered().rig);
  expect(outputs.map(({ name }) => name)).toContain('supply/dc-8');
  expect(loads.map(({ name }) => name)).toEqual(['switcher', 'drive', 'delay']);
  expect(leads).toEqual({ reversing: 0, adapter: 0, chains: [] });
});
