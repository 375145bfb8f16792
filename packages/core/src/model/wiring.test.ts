import { describe, expect, test } from '@jest/globals';
import * as commands from '../change/commands.ts';
import { applySteps } from '../change/steps.ts';
import { demoShow } from '../demo/demo.ts';
import { fourCable } from '../testing/build-show.ts';
import type { Show } from './documents.ts';
import { chosenSetList, partsInSetOrder } from './set-order.ts';
import { controlAt, isByHand, isWiredAlike, ownerOf, powerUpOf, relabelled, buildWiring } from './wiring.ts';

const after = (show: Show, command: commands.Command): Show => {
  const result = applySteps(show, command.steps);
  if (!result.ok) throw new Error(JSON.stringify(result.problems));
  return result.value;
};

describe('cables sorted by what they carry', () => {
  const { show } = fourCable();
  const wiring = buildWiring(show.rig);
  test('signal and loudspeaker together, MIDI by port, contacts by the input they close', () => {
    expect(wiring.signalCables.map((cable) => cable.kind)).toEqual([
      ...Array.from({ length: 8 }, () => 'signal'),
      'speaker',
    ]);
    expect(wiring.midiLinks).toEqual([{ cable: 'cable-10', from: 'switcher', port: 'out', to: 'delay' }]);
    expect(wiring.contactLinks).toEqual([
      { cable: 'cable-11', controller: 'switcher', contact: 'contact-1', device: 'combo', input: 'remote-1' },
    ]);
  });
  test('a device knows which of its jacks hold a plug', () => {
    expect([...wiring.device.get('combo')!.plugged].sort()).toEqual(['in', 'remote-1', 'return', 'send', 'speaker']);
    expect(buildWiring(fourCable().device('spare', 'drive', 'Spare').show.rig).device.get('spare')!.plugged.size).toBe(
      0,
    );
  });
  test('a chain by thru is a link of its own kind', () => {
    const chained = fourCable()
      .device('hall', 'midi-delay', 'Hall', { channel: 3 })
      .cables('Delay MIDI thru > Hall MIDI in').show;
    expect(buildWiring(chained.rig).midiLinks.map(({ from, port, to }) => `${from} ${port} ${to}`)).toEqual([
      'switcher out delay',
      'delay thru hall',
    ]);
  });
});

describe('what is only told changes no wiring', () => {
  const show = demoShow();
  const [cable] = Object.keys(show.rig.cables);
  const same: readonly (readonly [string, commands.Command])[] = [
    ['a length', commands.setCable(show, cable, 'length', 11)],
    ['a loom', commands.setCable(show, cable, 'loom', 'A')],
    ['a tag', commands.setCable(show, cable, 'tag', 'X1')],
    ['how a panel counts', commands.setDevice(show, 'echo', 'firstPresetNumber', 0)],
    ['the name of the rig', commands.renameRig(show, 'Other')],
    ['a sound', commands.setSound(show, 'sound-1', 'name', 'Other')],
  ];
  test.each(same)('%s', (_, command) => {
    const next = after(show, command);
    expect(isWiredAlike(show.rig, next.rig)).toBe(true);
    const before = buildWiring(show.rig);
    const again = relabelled(before, next.rig);
    expect(again).toEqual(buildWiring(next.rig));
    expect(again.midiLinks).toBe(before.midiLinks);
  });
  const other: readonly (readonly [string, commands.Command])[] = [
    ['a channel', commands.setDevice(show, 'echo', 'channel', 9)],
    [
      'a foot that is planned',
      commands.setDevice(show, 'tuner', 'plannedSwitches', [
        buildWiring(show.rig).device.get('tuner')!.anatomy.switches[0].id,
      ]),
    ],
    ['a stored preset', commands.setPreset(show, 'echo', 3, { values: { mix: 3 } })],
    ['a cable pulled', commands.disconnect(show, cable)],
    ['a device gone', commands.removeDevice(show, 'echo')],
  ];
  test.each(other)('but %s does', (_, command) => expect(isWiredAlike(show.rig, after(show, command).rig)).toBe(false));
});

describe('controls', () => {
  const { rig } = demoShow();
  const wiring = buildWiring(rig);
  test('are found by their ref; what is not there is not', () => {
    expect(controlAt(wiring, 'echo/mix')?.id).toBe('mix');
    expect([controlAt(wiring, 'echo/sparkle'), controlAt(wiring, 'gone/mix')]).toEqual([undefined, undefined]);
  });
  test('who sets one, and how it comes up, a device may say otherwise than its type', () => {
    const guitar = wiring.device.get('guitar')!;
    const selector = guitar.control.get('selector')!;
    expect([ownerOf(guitar, selector), isByHand(guitar.device, selector)]).toEqual(['hand', true]);
    const described = {
      ...guitar,
      device: {
        ...guitar.device,
        owners: { selector: 'programmed' as const },
        powerUps: { selector: { is: 'value' as const, value: 'bridge' } },
      },
    };
    expect([
      ownerOf(described, selector),
      isByHand(described.device, selector),
      powerUpOf(described, selector),
    ]).toEqual(['programmed', false, { is: 'value', value: 'bridge' }]);
    expect(powerUpOf(guitar, selector)).toEqual(selector.powerUp);
  });
});

describe('the order of the set', () => {
  const show = demoShow();
  test('is that of the chosen list; of the first where none is chosen or it is gone', () => {
    const [first, second] = Object.values(show.songbook.setLists);
    const choose = (setList: string | null): Show => ({
      ...show,
      rig: { ...show.rig, settings: { ...show.rig.settings, setList } },
    });
    expect(chosenSetList(choose(second.id))?.id).toBe(second.id);
    expect([chosenSetList(choose(null))?.id, chosenSetList(choose('gone'))?.id]).toEqual([
      chosenSetList(choose(first.id))?.id,
      chosenSetList(choose(null))?.id,
    ]);
  });
  test('has the parts of its songs, song by song; with no list, of all songs as filed', () => {
    const parts = partsInSetOrder(show);
    const songs = parts.map((part) => show.songbook.parts[part].song);
    expect([...new Set(songs)]).toEqual(chosenSetList(show)!.songs.filter((song) => songs.includes(song)));
    expect(parts).toHaveLength(new Set(parts).size);
    const without = { ...show, songbook: { ...show.songbook, setLists: {} } };
    expect([...partsInSetOrder(without)].sort()).toEqual(Object.keys(show.songbook.parts).sort());
  });
});
