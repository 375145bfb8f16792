import { expect, test } from '@jest/globals';
import { clean, fourCable, lead, ShowBuilder } from '../../testing/build-show.ts';
import { seededShow } from '../../testing/compare.ts';
import { adaptCase, type CaseRig } from '../../testing/recall-adapter.ts';
import { proverOf } from '../prove/prover-of.ts';
import { strayReports } from './accidental-presses.ts';

// By hand: the drive sits in a loop that a clean sound takes out; the amp's input holds its channel, so that its own
// switch does nothing; the delay's slot switches it back on by message.
test('what a stray foot breaks at once, and what the next presses still bring up wrong, switch by switch', () => {
  const { show } = fourCable().device('tuner', 'tuner', 'Tuner').sound('lead', lead).sound('clean', clean).laid();
  const reports = strayReports(proverOf(show));
  expect(reports.map((report) => [`${report.device}.${report.switch}`, report.atOnce, report.after])).toEqual([
    ['drive.switch', ['lead'], ['lead']],
    ['combo.channel', [], []],
    ['delay.switch', ['lead'], []],
    ['tuner.switch', [], []],
  ]);
});

// By hand: the tuner is in the line and mutes it; the drive alone is wrong where its own switch was pressed.
test('what is lost beyond the piece itself comes first: a tuner silences everything until it is pressed again', () => {
  const { show } = fourCable().device('tuner', 'tuner', 'Tuner');
  const toTuner = Object.entries(show.rig.cables).map(([id, cable]) => {
    const isFirst = cable.plugs.some(({ device }) => device === 'guitar');
    return [id, isFirst ? { ...cable, plugs: [cable.plugs[0], { device: 'tuner', jack: 'in' }] } : cable];
  });
  const inLine = new ShowBuilder({ ...show, rig: { ...show.rig, cables: Object.fromEntries(toTuner) } })
    .cables('Tuner > Switcher In')
    .sound('lead', lead)
    .sound('clean', clean)
    .laid().show;
  const told = strayReports(proverOf(inLine)).map(({ device, effect, silenced, isUndoneByItself }) => [
    device,
    effect,
    silenced.length,
    isUndoneByItself,
  ]);
  expect(told).toEqual([
    ['drive', 'changes-itself', 0, true],
    ['combo', 'unheard', 0, false],
    ['delay', 'changes-itself', 0, true],
    ['tuner', 'silences', 2, true],
  ]);
  // A tuner that a foot is planned for is lifted by the player, looking: no sound fails for it.
  const planned = {
    ...inLine,
    rig: {
      ...inLine.rig,
      devices: { ...inLine.rig.devices, tuner: { ...inLine.rig.devices.tuner, plannedSwitches: ['switch'] } },
    },
  };
  expect(
    proverOf(planned)
      .all(2)
      .map(({ verdict }) => verdict),
  ).toEqual(['recalls', 'recalls']);
  expect(strayReports(proverOf(planned)).map(({ device }) => device)).toEqual(['drive', 'combo', 'delay']);
});

test('a switch that is planned is no stray', () => {
  const { show } = fourCable().sound('lead', lead).laid();
  const planned = {
    ...show,
    rig: {
      ...show.rig,
      devices: { ...show.rig.devices, drive: { ...show.rig.devices.drive, plannedSwitches: ['switch'] } },
    },
  };
  expect(strayReports(proverOf(planned)).map((strayReport) => strayReport.device)).toEqual(['combo', 'delay']);
});

// By hand: the reverb comes up off and the switcher's own slot puts it on, so that slot A, which sends nothing, finds
// it on.
test('what a slot that fires by itself at power-up has set is there when the stray foot comes', () => {
  const fires: CaseRig = {
    controllers: {
      sw: {
        powerup_fires: 'B',
        slots: {
          A: { bank: 0, pos: 0, sound: 'S', actions: [] },
          B: { bank: 0, pos: 1, actions: [{ cc: 9, val: 127, ch: 1 }] },
        },
      },
    },
    devices: {
      D: {
        ch: 1,
        controls: { on: { domain: [0, 1], powerup: 0 } },
        cc: [{ cc: 9, control: 'on', mode: 'switch' }],
        foot: { fs: { does: [{ toggle: 'on' }] } },
      },
    },
    midi: [['sw', 'out', 'D']],
    topology: {
      sources: ['n0'],
      dests: ['n1'],
      edges: [
        { id: 'D', from: 'n0', to: 'n1', when: { 'D.on': 1 } },
        { id: 'D out', from: 'n0', to: 'n1', when: { 'D.on': 0 }, wire: true },
      ],
    },
    sounds: { S: { wants: { 'D.on': 1 } } },
  };
  expect(
    strayReports(proverOf(adaptCase(fires).show)).map((strayReport) => [strayReport.switch, strayReport.atOnce.length]),
  ).toEqual([['fs', 1]]);
});

test('on random rigs, unknown contents and slots that never settles among them, every stray switch is told', () => {
  for (let seed = 1; seed <= 60; seed += 1) {
    const prover = proverOf(seededShow(seed));
    const sounds = new Set(prover.pairs().map(({ sound }) => sound.id));
    const reports = strayReports(prover);
    expect(reports.map((report) => [report.device, report.switch])).toEqual(
      prover.strays.map((stray) => [stray.device, stray.switch]),
    );
    expect(reports.flatMap((report) => [...report.atOnce, ...report.after]).every((id) => sounds.has(id))).toBe(true);
  }
});
