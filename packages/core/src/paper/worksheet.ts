import { noteWords } from '../model/labels.ts';
import { encode, hex } from '../midi/message.ts';
import { inOrder, type Show } from '../model/documents.ts';
import { type Slot } from '../model/rig.ts';
import { slotPlace, slotsOfController } from '../model/slots.ts';
import type { WiredDevice, Wiring } from '../model/wiring.ts';
import { displayName } from '../program/display-name.ts';
import { listActions, listSlot } from '../program/listing.ts';
import type { Sheet, SheetGroup, SheetLine } from './sheet.ts';

/** What to key into the hardware by hand: each device's global settings, then its presets, then every slot. */
export function worksheet(show: Show, wiring: Wiring): Sheet {
  const slots = wiring.devices.flatMap((wired) =>
    slotsOfController(show.rig, wired.device.id).map((slot) => slotGroup(show, wiring, wired, slot)),
  );
  return {
    title: 'Programming sheet',
    about: show.rig.name,
    look: 'list',
    columns: ['Set', 'To', 'Bytes', 'Why'],
    groups: [...settingGroups(show, wiring), ...slots],
    notes: [
      'Global settings go back to factory after a repair: check them first.',
      'Numbers are given as the panel shows them; bytes as they are sent, channels 0 to 15 inside the byte.',
    ],
  };
}

/** What each device is set to, beside its slots. */
export const settingGroups = (show: Show, wiring: Wiring): readonly SheetGroup[] =>
  wiring.devices.flatMap((wired): SheetGroup[] => {
    const lines = [...settingsOf(wiring, wired), ...besideSlots(wiring, wired), ...presetsOf(show, wired)];
    return lines.length > 0 ? [{ heading: wired.device.name, lines }] : [];
  });

const line = (id: string, what: string, to: string, bytes = '', why = ''): SheetLine => ({
  id,
  cells: [what, to, bytes, why],
});

function settingsOf(wiring: Wiring, { device, anatomy, plugged }: WiredDevice): SheetLine[] {
  const at = `device/${device.id}`;
  const listens = anatomy.presets !== undefined || anatomy.messages.length > 0;
  const reached = wiring.midiLinks.some((link) => link.to === device.id);
  const thru = anatomy.jacks.find((jack) => jack.kind === 'midi-thru' || jack.kind === 'midi-merge');
  const lines: SheetLine[] = [];
  if (listens && reached)
    lines.push(
      line(
        `${at}/channel`,
        'Receive channel',
        device.channel === null ? 'none' : device.channel === 'omni' ? 'omni (all channels)' : String(device.channel),
        '',
        'answers to what is sent on it',
      ),
    );
  if (thru)
    lines.push(
      line(
        `${at}/thru`,
        `${thru.label} jack`,
        plugged.has(thru.id) ? 'passes on what comes in' : 'not used',
        '',
        plugged.has(thru.id) ? 'the next device hangs on it' : '',
      ),
    );
  if (anatomy.presets && reached)
    lines.push(
      line(
        `${at}/banks`,
        'Bank select',
        { none: 'none', msb: 'control change 0', lsb: 'control change 32', both: 'control change 0 and 32' }[
          anatomy.presets.scheme
        ],
      ),
    );
  for (const [i, setting] of (anatomy.settings ?? []).entries())
    lines.push(
      line(`${at}/setting-${i}`, setting.label, setting.value, '', 'a global setting: check it after a repair'),
    );
  for (const message of anatomy.messages)
    if (reached)
      lines.push(
        line(
          `${at}/cc-${message.cc}`,
          `Control change ${message.cc}`,
          anatomy.controls.find((control) => control.id === message.control)?.label ?? message.control,
          '',
          message.mode === 'switch' ? '0 off, 127 on' : message.mode,
        ),
      );
  for (const contact of anatomy.controller?.contacts ?? []) {
    const links = wiring.contactLinks.filter((link) => link.controller === device.id && link.contact === contact.id);
    if (links.length > 0)
      lines.push(
        line(
          `${at}/${contact.id}`,
          anatomy.jacks.find((jack) => jack.id === contact.id)?.label ?? contact.id,
          contact.rests === 1 ? `${contact.kind}, closed at rest` : contact.kind,
          '',
          `to ${links.map((link) => wiring.device.get(link.device)?.device.name).join(', ')}`,
        ),
      );
  }
  for (const control of anatomy.controls)
    for (const [bits, value] of Object.entries(control.contacts?.table ?? {}))
      lines.push(
        line(
          `${at}/${control.id}-${bits}`,
          `${control.label}, remote ${[...bits].map((bit) => (bit === '1' ? 'closed' : 'open')).join(' + ')}`,
          String(value),
        ),
      );
  return lines;
}

/**
 * What a controller is to do beside its slots' presses: when the power comes, at a momentary switch, when it is called.
 */
function besideSlots(wiring: Wiring, { device, anatomy }: WiredDevice): SheetLine[] {
  const at = `device/${device.id}`;
  const { powerUpSlot, calls, momentaries } = device;
  const { slots } = wiring.rig;
  const lines: SheetLine[] = [];
  if (powerUpSlot !== undefined)
    lines.push(line(`${at}/power-up`, 'At power-up', `fires ${slotPlace(slots[powerUpSlot])}`));
  for (const { id, label } of anatomy.controller?.momentaries ?? [])
    for (const [when, said] of [
      ['press', 'pressed'],
      ['release', 'released'],
    ] as const)
      listActions(wiring, device.id, momentaries[id]?.[when] ?? []).forEach((listAction, i) =>
        lines.push(line(`${at}/${id}-${when}-${i}`, `${label}, ${said}`, listAction.words, listAction.hex)),
      );
  for (const [program, slot] of Object.entries(calls?.programs ?? {}))
    lines.push(
      line(
        `${at}/call-${program}`,
        `Program change ${program}, channel ${calls!.channel}`,
        `presses ${slotPlace(slots[slot])}`,
        hex(encode({ kind: 'program', channel: calls!.channel, program: Number(program) })),
      ),
    );
  return lines;
}

/** Presets that some sound wants, and what must be stored in each as far as it is known. */
function presetsOf(show: Show, { device, anatomy }: WiredDevice): SheetLine[] {
  if (!anatomy.presets) return [];
  const wanted = new Map<number, string[]>();
  for (const sound of inOrder(show.rig.sounds)) {
    const number = sound.wants[`${device.id}/preset`];
    if (typeof number === 'number') wanted.set(number, [...(wanted.get(number) ?? []), sound.name]);
  }
  return [...wanted]
    .sort(([a], [b]) => a - b)
    .map(([number, sounds]) => {
      const stored = device.presets[String(number)];
      const values = Object.entries(stored?.values ?? {}).flatMap(([id, value]) =>
        value === null ? [] : [`${anatomy.controls.find((control) => control.id === id)?.label ?? id} ${value}`],
      );
      const says = [
        stored?.name,
        stored?.sync === undefined ? undefined : `synced, ${noteWords[stored.sync]}`,
        ...values,
      ]
        .filter(Boolean)
        .join(', ');
      return line(
        `device/${device.id}/preset-${number}`,
        `Preset ${number + device.firstPresetNumber}`,
        says || 'content not entered',
        `sent as ${number}`,
        `for ${sounds.length === 1 ? sounds[0] : `${sounds.length} sounds`}`,
      );
    });
}

/** A slot action by action, in the order in which they are done. */
export function slotGroup(show: Show, wiring: Wiring, { device, anatomy }: WiredDevice, slot: Slot): SheetGroup {
  const sound = slot.sound === null ? 'no sound' : (show.rig.sounds[slot.sound]?.name ?? 'no sound');
  const lines = listSlot(wiring, slot).actions.map((action, i) =>
    line(`slot/${slot.id}/${i}`, String(i + 1), action.words, action.hex, action.why),
  );
  const { nameLength } = anatomy.controller!;
  const shown = nameLength === undefined ? null : displayName(show.rig, slot, nameLength);
  return {
    heading: `${device.name}, ${slotPlace(slot)}: ${sound}`,
    lines: shown === null ? lines : [line(`slot/${slot.id}/name`, 'Name on the display', shown), ...lines],
  };
}
