import { inOrder, type Show, splitRef } from '../model/documents.ts';
import { cueLabel, panelNumber, plugLabel, valueLabel } from '../model/labels.ts';
import type { Action, Cable, Device, Plug, Slot } from '../model/rig.ts';
import { slotOfCast, soundOfCast } from '../model/casting.ts';
import { playedParts } from '../model/set-order.ts';
import { slotPlace } from '../model/slots.ts';
import { buildWiring, isByHand, type Wiring } from '../model/wiring.ts';
import { type ListedAction, listSlot } from '../program/listing.ts';
import { presetColumns, presetText } from '../program/preset-table.ts';
import { assertNever } from '../units/problem.ts';
import { sameData } from '../units/same-data.ts';

/** What hands do to make one rig of another, in the order in which it is done. */
export const moveKinds = ['unplug', 'leave', 'bring', 'plug', 'set', 'store', 'program', 'hands', 'played'] as const;
export type MoveKind = (typeof moveKinds)[number];

export interface Move {
  readonly kind: MoveKind;
  /** Stays the same while it is the same move. */
  readonly id: string;
  readonly words: string;
}

interface Side {
  readonly show: Show;
  readonly wiring: Wiring;
}

/** Every move from one rig to another; a plug is one move. None where the two are the same to hands and feet. */
export function movesBetween(from: Show, to: Show): readonly Move[] {
  const before: Side = { show: from, wiring: buildWiring(from.rig) };
  const after: Side = { show: to, wiring: buildWiring(to.rig) };
  const moves = [
    ...plugMoves(before, after),
    ...deviceMoves(before, after),
    ...presetMoves(before, after),
    ...slotMoves(before, after),
    ...handMoves(before, after),
    ...partMoves(before, after),
  ];
  return moveKinds.flatMap((kind) => moves.filter((move) => move.kind === kind));
}

function plugMoves(before: Side, after: Side): Move[] {
  const moves: Move[] = [];
  const add = (kind: 'unplug' | 'plug', cable: Cable, i: number, words: string) =>
    moves.push({ kind, id: `${kind}/${cable.id}/${i}`, words: `${cable.tag}: ${words}` });
  const olds = before.show.rig.cables;
  const news = after.show.rig.cables;
  for (const old of inOrder(olds)) {
    const now = Object.hasOwn(news, old.id) ? news[old.id] : undefined;
    old.plugs.forEach((plug, i) => {
      if (!now || i >= now.plugs.length) add('unplug', old, i, `pull ${plugLabel(before.wiring, plug)}`);
    });
  }
  for (const now of inOrder(news)) {
    const old = Object.hasOwn(olds, now.id) ? olds[now.id] : undefined;
    now.plugs.forEach((plug, i) => {
      const was = old?.plugs[i] as Plug | undefined;
      if (!was) add('plug', now, i, `into ${plugLabel(after.wiring, plug)}${lengthWords(now, i)}`);
      else if (!sameData(was, plug))
        add('plug', now, i, `from ${plugLabel(before.wiring, was)} to ${plugLabel(after.wiring, plug)}`);
    });
    if (old && !sameData(old.poles, now.poles)) add('plug', now, now.plugs.length, 'take the other adapter');
  }
  return moves;
}

/** A cable that is new tonight has to be found: how long it is stands with its first plug. */
const lengthWords = ({ length }: Cable, plug: number): string =>
  plug === 0 && length !== null ? ` (a cable of ${length} m)` : '';

function deviceMoves(before: Side, after: Side): Move[] {
  const moves: Move[] = [];
  const olds = before.show.rig.devices;
  const news = after.show.rig.devices;
  const placeOf = ({ show }: Side, { place }: Device): string => show.rig.places[place]?.name ?? place;
  for (const old of inOrder(olds))
    if (!Object.hasOwn(news, old.id))
      moves.push({ kind: 'leave', id: `leave/${old.id}`, words: `${old.name} (${placeOf(before, old)})` });
  for (const now of inOrder(news)) {
    const old = Object.hasOwn(olds, now.id) ? olds[now.id] : undefined;
    const set = (what: string, words: string) =>
      moves.push({ kind: 'set', id: `set/${now.id}/${what}`, words: `${now.name}: ${words}` });
    if (!old) {
      moves.push({ kind: 'bring', id: `bring/${now.id}`, words: `${now.name}, to ${placeOf(after, now)}` });
      continue;
    }
    if (placeOf(before, old) !== placeOf(after, now))
      moves.push({
        kind: 'bring',
        id: `move/${now.id}`,
        words: `${now.name}, from ${placeOf(before, old)} to ${placeOf(after, now)}`,
      });
    if (old.type.id !== now.type.id || old.type.archetype !== now.type.archetype)
      set('type', `put ${now.type.name} in place of ${old.type.name}`);
    else if (!sameData(old.type.params, now.type.params)) set('type', 'its own settings are others');
    if (old.channel !== now.channel)
      set('channel', `receive channel ${now.channel ?? 'none'} (was ${old.channel ?? 'none'})`);
    for (const field of ['momentaries', 'calls', 'powerUpSlot'] as const)
      if (!sameData(old[field], now[field])) set(field, fieldWords[field]);
  }
  return moves;
}

const fieldWords = {
  momentaries: 'program its momentary switches',
  calls: 'program what a received program change calls',
  powerUpSlot: 'program what it fires at power-up',
} as const;

function presetMoves(before: Side, after: Side): Move[] {
  return after.wiring.devices.flatMap(({ device, anatomy }): Move[] => {
    const old = Object.hasOwn(before.show.rig.devices, device.id) ? before.show.rig.devices[device.id] : undefined;
    if (!old || old.presets === device.presets) return [];
    const columns = presetColumns(anatomy);
    return Object.keys(device.presets).flatMap((number): Move[] => {
      const [was, now] = [old.presets[number] ?? { values: {} }, device.presets[number]];
      if (sameData(was, now)) return [];
      const changed = columns.flatMap((column) => {
        const [a, b] = [presetText(column, was), presetText(column, now)];
        return a === b || b === '' ? [] : [`${column.label.toLowerCase()} ${b}`];
      });
      if (changed.length === 0) return [];
      const panel = panelNumber(after.wiring, device.id, Number(number));
      return [
        {
          kind: 'store',
          id: `store/${device.id}/${number}`,
          words: `${device.name} preset ${panel}: ${changed.join(', ')}`,
        },
      ];
    });
  });
}

function slotMoves(before: Side, after: Side): Move[] {
  const moves: Move[] = [];
  const at = ({ controller, bank, position }: Slot): string => `${controller} ${bank} ${position}`;
  const olds = new Map(Object.values(before.show.rig.slots).map((slot) => [at(slot), slot]));
  const slots = Object.values(after.show.rig.slots).sort((a, b) =>
    a.controller < b.controller ? -1 : a.controller > b.controller ? 1 : a.bank - b.bank || a.position - b.position,
  );
  const lines = ({ wiring }: Side, slot: Slot | undefined): readonly ListedAction[] =>
    slot ? listSlot(wiring, slot).actions : [];
  const label = ({ show, wiring }: Side, slot: Slot): string => {
    const sound = slot.sound === null ? '' : ` (${show.rig.sounds[slot.sound]?.name ?? ''})`;
    return `${wiring.device.get(slot.controller)?.device.name ?? slot.controller}, ${slotPlace(slot)}${sound}`;
  };
  for (const slot of slots) {
    const old = olds.get(at(slot));
    olds.delete(at(slot));
    const [was, now] = [lines(before, old), lines(after, slot)];
    const more = wordsOf(now.filter(({ words }) => !wordsOf(was).includes(words)));
    const kept = new Set(now.map(({ action }) => subjectOf(action)));
    // What is sent to a piece that stays at home harms nobody: nothing is programmed for that.
    const isHere = ({ about }: ListedAction): boolean => about === null || after.wiring.device.has(about);
    const less = wordsOf(
      was.filter((line) => line.action.kind !== 'wait' && !kept.has(subjectOf(line.action)) && isHere(line)),
    );
    const isInOrder =
      wordsOf(was)
        .filter((words) => wordsOf(now).includes(words))
        .join('\n') ===
      wordsOf(now)
        .filter((words) => wordsOf(was).includes(words))
        .join('\n');
    if (more.length + less.length === 0 && isInOrder) continue;
    const what =
      more.length + less.length === 0
        ? 'the same in another order'
        : [...more, ...less.map((line) => `nothing of ${line.charAt(0).toLowerCase()}${line.slice(1)}`)].join('; ');
    moves.push({
      kind: 'program',
      id: `program/${slot.id}`,
      words: `${label(after, slot)}: ${old ? what : wordsOf(now).join('; ')}`,
    });
  }
  for (const slot of olds.values())
    moves.push({ kind: 'program', id: `clear/${slot.id}`, words: `${label(before, slot)}: clear it` });
  return moves;
}

const wordsOf = (lines: readonly ListedAction[]): readonly string[] => lines.map(({ words }) => words);

/** What an action sets or sends, whatever it puts it on. */
function subjectOf(action: Action): string {
  switch (action.kind) {
    case 'set':
    case 'save':
    case 'restore':
      return `control ${action.control}`;
    case 'contact':
      return `contact ${action.contact}`;
    case 'program':
      return `program ${action.channel}`;
    case 'control':
      return `message ${action.channel} ${action.cc}`;
    case 'wait':
      return 'wait';
    default:
      return assertNever(action, 'action');
  }
}

/** What hands set in a sound, where it is another thing tonight. */
function handMoves(before: Side, after: Side): Move[] {
  return inOrder(after.show.rig.sounds).flatMap((sound) => {
    const old = Object.hasOwn(before.show.rig.sounds, sound.id) ? before.show.rig.sounds[sound.id] : undefined;
    return Object.entries(sound.wants).flatMap(([ref, value]): Move[] => {
      const { device, control } = splitRef(ref);
      const wired = after.wiring.device.get(device);
      const found = wired?.control.get(control);
      if (!wired || !found || !isByHand(wired.device, found) || old?.wants[ref] === value) return [];
      const was = old?.wants[ref];
      return [
        {
          kind: 'hands',
          id: `hands/${sound.id}/${ref}`,
          words: `${sound.name}: ${cueLabel(after.wiring, ref, value)}${was === undefined ? '' : ` (was ${valueLabel(before.wiring, ref, was)})`}`,
        },
      ];
    });
  });
}

/** What a part is played by, where that is another thing tonight. */
function partMoves(before: Side, after: Side): Move[] {
  const played = ({ show }: Side): ReadonlyMap<string, string> =>
    new Map(
      Object.values(show.rig.casting).map((cast) => {
        const slot = slotOfCast(show.rig, cast);
        const sound = soundOfCast(show.rig, cast);
        return [cast.part, `${sound?.name ?? 'nothing'}${slot ? ` on ${slotPlace(slot)}` : ', by feet'}`];
      }),
    );
  const [was, now] = [played(before), played(after)];
  const seen = new Set<string>();
  return playedParts(after.show).flatMap((part): Move[] => {
    if (seen.has(part.id) || was.get(part.id) === now.get(part.id)) return [];
    seen.add(part.id);
    const song = after.show.songbook.songs[part.song].name;
    return [
      {
        kind: 'played',
        id: `played/${part.id}`,
        words: `${song}, ${part.name}: ${now.get(part.id) ?? 'nothing'} (was ${was.get(part.id) ?? 'nothing'})`,
      },
    ];
  });
}
