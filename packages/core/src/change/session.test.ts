import { describe, expect, test } from '@jest/globals';
import { catalogue } from '../catalogue/types.ts';
import { check, contextOf } from '../check/engine.ts';
import { formatFinding } from '../check/format-finding.ts';
import { rules } from '../check/rules/index.ts';
import type { Context, Finding } from '../check/define-rule.ts';
import { demoShow, flyShow } from '../demo/demo.ts';
import { encode } from '../midi/message.ts';
import { domainValues } from '../model/anatomy.ts';
import { anatomyOf } from '../model/archetypes/registry.ts';
import { controlRef, inOrder, type Show } from '../model/documents.ts';
import { conventions, type StoredPreset } from '../model/rig.ts';
import { listSlot } from '../program/listing.ts';
import { starters } from '../starters/starters.ts';
import { Random } from '../testing/random.ts';
import { describeProblem } from '../units/problem.ts';
import { exportShow, importShow } from '../formats/json.ts';
import { describeCommand } from './command-words.ts';
import * as commands from './commands.ts';
import type { Command } from './commands.ts';
import { applySteps, invertSteps } from './steps.ts';

// Whoever edits at random, with mouse, keys or files: every edit is taken or refused with a reason, can be undone,
// survives the file, and is judged as if the show had been opened just now.

const ids = (record: Readonly<Record<string, unknown>>): readonly string[] => Object.keys(record);

/** A control that a sound can want, with a value: mostly one that the control knows. */
function anyWant(show: Show, r: Random): { readonly ref: string; readonly value: string | number | undefined } {
  const device = show.rig.devices[r.pick(ids(show.rig.devices))];
  const { controls, presets } = anatomyOf(device.type);
  if (presets && (controls.length === 0 || r.chance(0.4)))
    return { ref: controlRef(device.id, 'preset'), value: r.chance(0.2) ? undefined : r.below(200) };
  if (controls.length === 0) return { ref: controlRef(device.id, 'no-such'), value: 1 };
  const control = r.pick(controls);
  return {
    ref: controlRef(device.id, control.id),
    value: r.chance(0.2) ? undefined : r.chance(0.1) ? 'no such value' : r.pick(domainValues(control.domain)),
  };
}

const anyPlug = (show: Show, r: Random) => {
  const device = show.rig.devices[r.pick(ids(show.rig.devices))];
  const { jacks } = anatomyOf(device.type);
  return { device: device.id, jack: jacks.length === 0 ? 'none' : r.pick(jacks).id };
};

type Edit = (show: Show, r: Random, fresh: string) => Command | null;

const rigEdits: readonly Edit[] = [
  (show, r, fresh) =>
    commands.addDevice(show, fresh, r.pick(catalogue).type, `Added ${fresh}`, r.pick(ids(show.rig.places)), {
      channel: r.pick([null, 1, 2, 16, 'omni'] as const),
    }),
  (show, r) => (ids(show.rig.devices).length < 4 ? null : commands.removeDevice(show, r.pick(ids(show.rig.devices)))),
  (show, r) =>
    commands.setDevice(show, r.pick(ids(show.rig.devices)), 'channel', r.pick([null, 1, 2, 3, 'omni', 17 as never])),
  (show, r) => commands.setDevice(show, r.pick(ids(show.rig.devices)), 'firstPresetNumber', r.pick([0, 1])),
  (show, r) =>
    commands.setDevice(
      show,
      r.pick(ids(show.rig.devices)),
      'name',
      r.pick(['', 'Ünïcode ‮', '<b>bold</b>', 'x'.repeat(300)]),
    ),
  (show, r) =>
    commands.connect(
      show,
      `cable-${r.below(1_000_000)}`,
      Array.from({ length: 2 + r.below(2) }, () => anyPlug(show, r)),
      r.pick([null, 0.3, 6, -1]),
    ),
  (show, r) => (ids(show.rig.cables).length === 0 ? null : commands.disconnect(show, r.pick(ids(show.rig.cables)))),
  (show, r) =>
    ids(show.rig.cables).length === 0
      ? null
      : commands.setCable(show, r.pick(ids(show.rig.cables)), 'length', r.pick([null, 1.5, 1e9])),
  (show, r) =>
    commands.setPreset(
      show,
      r.pick(ids(show.rig.devices)),
      r.below(6),
      r.pick<StoredPreset | null>([null, { values: {} }, { name: 'Stored', values: { mix: 30 } }]),
    ),
  (show, r) =>
    commands.setDevice(
      show,
      r.pick(ids(show.rig.devices)),
      'powerUpSlot',
      r.pick([undefined, 'no-such', ...ids(show.rig.slots)]),
    ),
  (show, r) =>
    commands.setDevice(
      show,
      r.pick(ids(show.rig.devices)),
      'calls',
      r.pick([
        undefined,
        {
          channel: r.pick([1, 2, 17]),
          programs: { [String(r.below(140))]: r.pick(['no-such', ...ids(show.rig.slots)]) },
        },
      ]),
    ),
  (show, r) => {
    const controller = Object.values(show.rig.devices).find((device) => anatomyOf(device.type).controller);
    if (!controller) return null;
    const { momentaries, loops } = anatomyOf(controller.type).controller!;
    if (momentaries.length === 0 || r.chance(0.2))
      return commands.setParam(show, controller.id, 'momentaries', r.below(3));
    const loop = loops.length === 0 ? 'none' : r.pick(loops);
    return commands.setMomentary(
      show,
      controller.id,
      r.pick([...momentaries.map(({ id }) => id), 'no-such']),
      r.pick(['press', 'release'] as const),
      r.pick([
        [],
        [
          { kind: 'save', control: loop },
          { kind: 'set', control: loop, value: 1 },
        ],
        [{ kind: 'restore', control: loop }],
      ] as const),
    );
  },
  (show, r) => commands.renameRig(show, r.pick(['Spring', 'Autumn'])),
  (show, r) => commands.setConvention(show, 'tempo', r.pick(conventions.tempo)),
];

const soundEdits: readonly Edit[] = [
  (show, r, fresh) =>
    commands.addSound(
      show,
      fresh,
      `Sound ${fresh}`,
      r.chance(0.7) ? show.rig.sounds[r.pick(ids(show.rig.sounds))] : undefined,
    ),
  (show, r) => (ids(show.rig.sounds).length < 3 ? null : commands.removeSound(show, r.pick(ids(show.rig.sounds)))),
  (show, r) => commands.setSound(show, r.pick(ids(show.rig.sounds)), 'silence', r.chance(0.5)),
  (show, r) => commands.setSound(show, r.pick(ids(show.rig.sounds)), 'role', r.pick(['', 'solo', 'rhythm'])),
  (show, r) =>
    commands.wantPedal(
      show,
      r.pick(ids(show.rig.sounds)),
      r.pick(ids(show.rig.devices)),
      r.pick(['on', 'off', undefined]),
    ),
  (show, r) =>
    commands.wantPedalInAll(
      show,
      ids(show.rig.sounds).filter(() => r.chance(0.5)),
      r.pick(ids(show.rig.devices)),
      r.pick(['on', 'off', undefined]),
    ),
  (show, r) => {
    const { ref, value } = anyWant(show, r);
    return commands.want(show, r.pick(ids(show.rig.sounds)), ref, value);
  },
  (show, r) => {
    const { ref, value } = anyWant(show, r);
    return commands.wantInAll(
      show,
      ids(show.rig.sounds).filter(() => r.chance(0.5)),
      ref,
      value,
    );
  },
  (show, r) => commands.moveSound(show, r.pick(ids(show.rig.sounds)), null),
  (show, r) => {
    const controller = Object.values(show.rig.devices).find((device) => anatomyOf(device.type).controller);
    return controller ? commands.layOut(show, controller.id, r.pick(['role', 'song'])) : null;
  },
  (show, r) => {
    const slots = Object.values(show.rig.slots);
    if (slots.length === 0) return null;
    const [slot, other] = [r.pick(slots), r.pick(slots)];
    const place = { controller: slot.controller, bank: other.bank, position: r.below(5) };
    return r.chance(0.2)
      ? commands.removeSlot(show, slot.id)
      : r.chance(0.5)
        ? commands.moveSlot(show, slot.id, place)
        : commands.placeSound(show, r.pick(ids(show.rig.sounds)), place);
  },
  (show, r) => {
    const slots = Object.values(show.rig.slots);
    if (slots.length === 0) return null;
    const [one, other] = [r.pick(slots), r.pick(slots)];
    return commands.setSlotActions(
      show,
      one.id,
      r.pick([
        null,
        [],
        other.actions,
        [{ kind: 'set', control: 'loop-1', value: 1 }],
        [
          { kind: 'program', channel: 2, program: r.below(128) },
          { kind: 'wait', ms: 20 },
          { kind: 'control', channel: 2, cc: 102, value: 127 },
        ],
      ] as const),
    );
  },
];

const randomPlays = (show: Show, r: Random): commands.Plays | null => {
  const [slots, sounds] = [ids(show.rig.slots), ids(show.rig.sounds)];
  if (slots.length > 0 && r.chance(0.7)) return { slot: r.pick(slots) };
  return sounds.length > 0 ? { sound: r.pick(sounds) } : null;
};

const songEdits: readonly Edit[] = [
  (show, _, fresh) => commands.addSong(show, fresh, `Song ${fresh}`),
  (show, r) =>
    ids(show.songbook.songs).length < 2 ? null : commands.removeSong(show, r.pick(ids(show.songbook.songs))),
  (show, r) =>
    ids(show.songbook.songs).length === 0
      ? null
      : commands.setSong(show, r.pick(ids(show.songbook.songs)), 'tempo', r.pick([null, 92, 0, 1e6])),
  (show, r, fresh) =>
    ids(show.songbook.songs).length === 0
      ? null
      : commands.addPart(show, fresh, r.pick(ids(show.songbook.songs)), 'Bridge', randomPlays(show, r)),
  (show, r) =>
    ids(show.songbook.parts).length === 0 ? null : commands.removePart(show, r.pick(ids(show.songbook.parts))),
  (show, r) =>
    ids(show.songbook.parts).length === 0
      ? null
      : commands.castPart(show, r.pick(ids(show.songbook.parts)), r.chance(0.3) ? null : randomPlays(show, r)),
  (show, r) =>
    ids(show.songbook.parts).length === 0 ? null : commands.movePart(show, r.pick(ids(show.songbook.parts)), null),
  (show, r, fresh) =>
    commands.addSetList(
      show,
      fresh,
      `List ${fresh}`,
      ids(show.songbook.songs).filter(() => r.chance(0.5)),
      r.chance(0.5),
    ),
  (show, r) =>
    ids(show.songbook.setLists).length === 0 ? null : commands.removeSetList(show, r.pick(ids(show.songbook.setLists))),
  (show, r) =>
    ids(show.songbook.setLists).length === 0 ? null : commands.chooseSetList(show, r.pick(ids(show.songbook.setLists))),
];
const edits = [...rigEdits, ...soundEdits, ...soundEdits, ...songEdits];

interface Tally {
  taken: number;
  refused: number;
  fixed: number;
}

/** One edit, with all that must hold of it; the show after it. */
function edit(show: Show, r: Random, number: number, tally: Tally): Show {
  const command = r.pick(edits)(show, r, `new-${number}`);
  if (!command || command.steps.length === 0) return show;
  expect(describeCommand(command.command)).not.toMatch(/undefined|\[object/);
  const before = exportShow(show);
  const result = applySteps(show, command.steps);
  expect(exportShow(show)).toBe(before);
  if (!result.ok) {
    tally.refused += 1;
    for (const problem of result.problems) {
      expect(problem.pointer).toMatch(/^\/(rig|songbook|steps)\b/);
      expect(describeProblem(problem)).toMatch(/^[^{}]+\.$/);
      expect(describeProblem(problem)).not.toMatch(/undefined|\[object/);
    }
    return show;
  }
  tally.taken += 1;
  const back = applySteps(result.value, invertSteps(command.steps));
  expect(back.ok && exportShow(back.value)).toBe(before);
  expect(importShow(exportShow(result.value))).toEqual({ ok: true, value: result.value });
  return result.value;
}

/** Bytes are told as they are sent, and every action has words. */
function listed(context: Context, r: Random): void {
  const slots = Object.values(context.show.rig.slots);
  if (slots.length === 0) return;
  const slot = r.pick(slots);
  const { actions } = listSlot(context.wiring, slot);
  for (const { action, hex, words, why } of actions) {
    for (const text of [words, why]) expect(text).toMatch(/^(?!.*(undefined|\[object)).*\S/);
    const bytes = hex === '' ? [] : hex.split(' ').map((byte) => Number.parseInt(byte, 16));
    expect(bytes).toEqual(action.kind === 'program' || action.kind === 'control' ? encode(action) : []);
    // A status byte first, then data of seven bits (MIDI 1.0).
    for (const [i, byte] of bytes.entries()) expect(byte >= 0x80).toBe(i === 0);
  }
}

const isSame = (a: Finding, b: Finding): boolean =>
  a.ruleId === b.ruleId &&
  a.messageId === b.messageId &&
  JSON.stringify([a.at, a.data]) === JSON.stringify([b.at, b.data]);

/** A fix is taken, does away with its finding, and can be undone. */
function mended(context: Context, finding: Finding, tally: Tally): void {
  const { show } = context;
  const { steps } = finding.fix!;
  const fixed = applySteps(show, steps);
  if (!fixed.ok) throw new Error(`${finding.ruleId}: ${JSON.stringify(fixed.problems)}`);
  tally.fixed += 1;
  expect(check(contextOf(fixed.value, context), rules).findings.filter((item) => isSame(item, finding))).toEqual([]);
  const back = applySteps(fixed.value, invertSteps(steps));
  expect(back.ok && exportShow(back.value)).toBe(exportShow(show));
}

function session(start: Show, seed: number, count: number): Tally {
  const r = new Random(seed);
  const tally: Tally = { taken: 0, refused: 0, fixed: 0 };
  let show = start;
  let context = contextOf(show);
  for (let i = 0; i < count; i += 1) {
    const next = edit(show, r, seed * 10_000 + i, tally);
    if (next === show) continue;
    show = next;
    context = contextOf(show, context);
    const checked = check(context, rules);
    expect(checked.broken).toEqual([]);
    for (const finding of checked.findings)
      expect(formatFinding(finding, rules)).not.toMatch(/[{}]|undefined|NaN|\[object/);
    for (const sound of inOrder(show.rig.sounds))
      expect(context.tracer.trace(sound).passes.every((pass, index) => pass.index === index)).toBe(true);
    listed(context, r);
    const mendable = checked.findings.filter((finding) => finding.fix);
    if (mendable.length > 0) mended(context, r.pick(mendable), tally);
    if (i % 4 === 3) expect(checked).toEqual(check(contextOf(show), rules));
  }
  return tally;
}

describe('a session of edits at random', () => {
  const shows: readonly (readonly [string, Show])[] = [
    ['the demo', demoShow()],
    ['the fly rig', flyShow()],
    ...starters.map(({ id, make }) => [id, make(id, id)] as const),
  ];
  const tally: Tally = { taken: 0, refused: 0, fixed: 0 };

  test.each(shows)('on %s', (_, show) => {
    const item = session(show, 1, 30);
    tally.taken += item.taken;
    tally.refused += item.refused;
    tally.fixed += item.fixed;
  });

  test('some of them were refused, and many findings were mended', () => {
    expect(tally.taken).toBeGreaterThan(150);
    expect(tally.refused).toBeGreaterThan(20);
    expect(tally.fixed).toBeGreaterThan(40);
  });
});
