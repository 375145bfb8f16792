import { buildOn, setTwin } from '../change/based-on.ts';
import { setBoard } from '../change/build.ts';
import { tolerate } from '../change/intent.ts';
import { setLead } from '../change/power.ts';
import * as commands from '../change/commands.ts';
import { applySteps } from '../change/steps.ts';
import { emptyRig, emptySongbook, type Show } from '../model/documents.ts';
import type { ControlValue } from '../model/anatomy.ts';
import type { RigSettings } from '../model/rig.ts';
import { addVariant, setVariant } from '../variants/edit.ts';

/** Makes a show again from nothing by named commands alone; throws where one is refused. */
export function madeByCommands({ rig, songbook }: Show): Show {
  let show: Show = { rig: emptyRig(rig.id, rig.name), songbook: emptySongbook(songbook.id, songbook.name) };
  const run = (command: commands.Command): void => {
    const result = applySteps(show, command.steps);
    if (!result.ok) throw new Error(`${command.command.name}: ${JSON.stringify(result.problems)}`);
    show = result.value;
  };
  for (const { id, name, order, board } of Object.values(rig.places)) {
    run(commands.addPlace(show, id, name));
    run(commands.setPlace(show, id, 'order', order));
    if (board) run(setBoard(show, id, board));
  }
  for (const device of Object.values(rig.devices)) {
    const { calls: _, powerUpSlot: __, onlyFor: ___, ...facts } = device;
    run(commands.addDevice(show, device.id, device.type, device.name, device.place, facts));
  }
  for (const { id, onlyFor } of Object.values(rig.devices))
    if (onlyFor) run(commands.setDevice(show, id, 'onlyFor', onlyFor));
  for (const { id, plugs, length, poles, ...facts } of Object.values(rig.cables)) {
    run(commands.connect(show, id, plugs, length, poles));
    for (const field of ['tag', 'order', 'kind', 'loom'] as const)
      run(commands.setCable(show, id, field, facts[field] as never));
    if (facts.lead) run(setLead(show, id, facts.lead));
  }
  for (const { id, name, wants, pedals, tolerates, ...facts } of Object.values(rig.sounds)) {
    run(commands.addSound(show, id, name));
    for (const field of ['role', 'silence', 'order'] as const) run(commands.setSound(show, id, field, facts[field]));
    for (const [ref, value] of Object.entries<ControlValue>(wants)) run(commands.want(show, id, ref, value));
    for (const [device, state] of Object.entries(pedals)) run(commands.wantPedal(show, id, device, state));
    for (const device of tolerates ?? []) run(tolerate(show, id, device, true));
  }
  for (const { id, basedOn } of Object.values(rig.sounds)) {
    if (!basedOn) continue;
    run(buildOn(show, id, basedOn.sound));
    if (basedOn.only) run(setTwin(show, id, basedOn.only));
  }
  for (const slot of Object.values(rig.slots)) run(commands.addSlot(show, slot));
  for (const { id, calls, powerUpSlot } of Object.values(rig.devices)) {
    if (calls) run(commands.setDevice(show, id, 'calls', calls));
    if (powerUpSlot !== undefined) run(commands.setDevice(show, id, 'powerUpSlot', powerUpSlot));
  }
  for (const change of Object.values(rig.outside)) run(commands.addOutside(show, change));
  for (const { id, name, ...facts } of Object.values(songbook.songs)) {
    run(commands.addSong(show, id, name));
    for (const [field, value] of Object.entries(facts))
      run(commands.setSong(show, id, field as keyof typeof facts, value as never));
  }
  // A first song makes a set list; the show has its own.
  for (const list of Object.keys(show.songbook.setLists)) run(commands.removeSetList(show, list));
  for (const { id, song, name, ...facts } of Object.values(songbook.parts)) {
    run(commands.addPart(show, id, song, name, null));
    for (const [field, value] of Object.entries(facts))
      run(commands.setPart(show, id, field as keyof typeof facts, value as never));
  }
  for (const { id, name, songs, order } of Object.values(songbook.setLists)) {
    run(commands.addSetList(show, id, name, songs));
    run(commands.setSetList(show, id, 'order', order));
  }
  for (const cast of Object.values(rig.casting)) run(commands.addCast(show, cast));
  for (const [field, value] of Object.entries(rig.settings))
    run(commands.setSetting(show, field as keyof RigSettings, value as never));
  for (const { id, name, ...facts } of Object.values(rig.variants ?? {})) {
    run(addVariant(show, id, name));
    for (const field of ['order', 'steps'] as const) run(setVariant(show, id, field, facts[field]));
  }
  for (const { id, rule, at, reason } of Object.values(rig.waivers ?? {}))
    run(commands.waive(show, id, rule, at, reason, rule));
  return show;
}
