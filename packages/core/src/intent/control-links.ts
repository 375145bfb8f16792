import { combine } from '../change/combine.ts';
import { type Command, connect } from '../change/commands.ts';
import type { Jack } from '../model/anatomy.ts';
import { jackFacts } from '../model/jack-kinds.ts';
import type { Show } from '../model/documents.ts';
import { freshCableId } from '../model/names.ts';
import type { Plug } from '../model/rig.ts';
import { buildWiring, type WiredDevice, type Wiring } from '../model/wiring.ts';
import type { Line } from './line.ts';

/**
 * Cables for messages and contacts that a rig without any is missing: every device that listens, one behind the other
 * from the switcher on; every contact input of what contacts rule, from the switcher's free contacts. Those that are
 * there stay.
 */
export function controlLinks(show: Show, { switcher }: Line): Command | null {
  const links = [...midiLinks(show, switcher), ...contactLinks(show, switcher)];
  return combine(
    show,
    { name: 'connect', facts: {} },
    links.map((plugs) => (now) => connect(now, freshCableId(now.rig), plugs)),
  );
}

type Link = readonly [Plug, Plug];
const plug = (device: WiredDevice, jack: Jack): Plug => ({ device: device.device.id, jack: jack.id }) as Plug;

function midiLinks(show: Show, switcher: WiredDevice): readonly Link[] {
  const wiring = buildWiring(show.rig);
  const reached = reachedFrom(wiring, switcher.device.id);
  const links: Link[] = [];
  const used = new Set<string>();
  const outputOf = (wired: WiredDevice): Jack | undefined =>
    wired.anatomy.jacks.find(
      ({ id, kind }) =>
        jackFacts(kind).carries === 'midi' &&
        jackFacts(kind).direction === 'out' &&
        !wired.plugged.has(id) &&
        !used.has(`${wired.device.id}/${id}`) &&
        (wired.device.id === switcher.device.id || jackFacts(kind).midi !== 'out'),
    );
  // The last of those that are reached has the free way on.
  let last: WiredDevice | undefined = [...reached]
    .map((id) => wiring.device.get(id)!)
    .filter((wired) => outputOf(wired))
    .at(-1);
  for (const wired of wiring.devices) {
    const input = wired.anatomy.jacks.find(({ kind }) => kind === 'midi-in');
    if (!input || wired.device.channel === null || reached.has(wired.device.id) || wired.plugged.has(input.id))
      continue;
    const from = last && outputOf(last);
    if (!last || !from) break;
    links.push([plug(last, from), plug(wired, input)]);
    used.add(`${last.device.id}/${from.id}`);
    if (outputOf(wired)) last = wired;
    else if (!outputOf(last)) break;
  }
  return links;
}

/** A device and everything that its messages come to, in the order in which they come there. */
function reachedFrom(wiring: Wiring, id: string): ReadonlySet<string> {
  const reached = new Set([id]);
  for (const from of reached)
    for (const link of wiring.midiLinks)
      if (link.from === from && (from === id || link.port !== 'out')) reached.add(link.to);
  return reached;
}

function contactLinks(show: Show, switcher: WiredDevice): readonly Link[] {
  const wiring = buildWiring(show.rig);
  const now = wiring.device.get(switcher.device.id)!;
  const free = (now.anatomy.controller?.contacts ?? []).flatMap(({ id, kind }) =>
    now.plugged.has(id) ? [] : [{ jack: now.jack.get(id)!, kind }],
  );
  const links: Link[] = [];
  for (const wired of wiring.devices) {
    const ruled = wired.anatomy.controls.flatMap(({ contacts }) => contacts?.inputs ?? []);
    for (const input of wired.anatomy.inputs) {
      const contact = free.at(0);
      if (!ruled.includes(input.id) || wired.plugged.has(input.id) || !contact) continue;
      if (wired.anatomy.inputs.some((other) => wired.plugged.has(other.id))) continue;
      links.push([plug(now, contact.jack), plug(wired, wired.jack.get(input.id)!)]);
      free.shift();
    }
  }
  return links;
}
