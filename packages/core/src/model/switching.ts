import { controlRef } from './documents.ts';
import { memoised } from './memo.ts';
import { type ControlRef } from './rig.ts';
import type { WiredDevice, Wiring } from './wiring.ts';

/** How a pedal is switched: by the loop that holds it, by its own switch, by both or by neither. */
export interface Switching {
  readonly loop?: ControlRef;
  readonly own?: ControlRef;
}

export interface Loop {
  readonly ref: ControlRef;
  readonly controller: string;
  readonly control: string;
  /** Its jacks, where it has them. */
  readonly send: string | undefined;
  readonly return: string | undefined;
  /** Devices from send to return, in the order of the signal. */
  readonly holds: readonly string[];
}

/**
 * Every loop of every switcher with what the cables put into it, found once a wiring. Follows the first cable at each
 * jack; a Y inside a loop is followed along each branch.
 */
export const loopsOf = memoised(({ wiringMemo }: Wiring) => wiringMemo, findLoops);

function findLoops(wiring: Wiring): readonly Loop[] {
  const next = cablesFrom(wiring);
  return wiring.devices.flatMap((wired) => {
    const loops = wired.anatomy.controller?.loops ?? [];
    const jacks = loops.length > 0 ? loopJacksOf(wired) : new Map<string, LoopJacks>();
    return loops.map((control) => ({
      ref: controlRef(wired.device.id, control),
      controller: wired.device.id,
      control,
      send: jacks.get(control)?.send,
      return: jacks.get(control)?.return,
      holds: walkLoop(wiring, next, wired, jacks.get(control)?.send),
    }));
  });
}

/** How each device is switched. */
export const switchingOf = memoised(({ wiringMemo }: Wiring) => wiringMemo, findSwitching);

function findSwitching(wiring: Wiring): ReadonlyMap<string, Switching> {
  const held = new Map<string, ControlRef>();
  for (const loop of loopsOf(wiring))
    for (const device of loop.holds) if (!held.has(device)) held.set(device, loop.ref);
  return new Map(
    wiring.devices.map((wired) => {
      const { id, switching } = wired.device;
      const own =
        switching?.own ?? (wired.anatomy.ownSwitch === undefined ? undefined : controlRef(id, wired.anatomy.ownSwitch));
      const loop = switching?.loop ?? held.get(id);
      return [id, { ...(loop === undefined ? {} : { loop }), ...(own === undefined ? {} : { own }) }];
    }),
  );
}

type Next = ReadonlyMap<string, readonly { readonly device: string; readonly jack: string }[]>;

function cablesFrom(wiring: Wiring): Next {
  const next = new Map<string, { device: string; jack: string }[]>();
  for (const cable of wiring.signalCables)
    for (const from of cable.plugs) {
      if (wiring.device.get(from.device)?.jack.get(from.jack)?.kind !== 'signal-out') continue;
      const to = cable.plugs.filter(
        (plug) => wiring.device.get(plug.device)?.jack.get(plug.jack)?.kind === 'signal-in',
      );
      next.set(`${from.device}:${from.jack}`, to);
    }
  return next;
}

interface LoopJacks {
  send?: string;
  return?: string;
}

/** Sections name the send and the return of a loop by its control: the jacks that its two closed sections end on. */
function loopJacksOf(wired: WiredDevice): ReadonlyMap<string, LoopJacks> {
  const jacks = new Map<string, LoopJacks>();
  for (const section of wired.anatomy.sections)
    for (const control in section.when?.controls) {
      if (!section.when.controls[control].includes(1)) continue;
      const found = jacks.get(control) ?? {};
      if (found.send === undefined && wired.jack.get(section.to)?.kind === 'signal-out') found.send = section.to;
      if (found.return === undefined && wired.jack.get(section.from)?.kind === 'signal-in') found.return = section.from;
      jacks.set(control, found);
    }
  return jacks;
}

function walkLoop(wiring: Wiring, next: Next, wired: WiredDevice, send: string | undefined): readonly string[] {
  if (send === undefined) return [];
  const holds: string[] = [];
  const met = [...(next.get(`${wired.device.id}:${send}`) ?? [])];
  for (let at = 0; at < met.length; at += 1) {
    const { device, jack } = met[at];
    if (device === wired.device.id) continue;
    if (!holds.includes(device)) holds.push(device);
    for (const out of outsFrom(wiring.device.get(device), jack))
      for (const plug of next.get(`${device}:${out}`) ?? [])
        if (!met.some((item) => item.device === plug.device && item.jack === plug.jack)) met.push(plug);
  }
  return holds;
}

/** Outputs that an input can reach inside a device, whatever its controls say. */
function outsFrom(wired: WiredDevice | undefined, jack: string): readonly string[] {
  if (!wired) return [];
  const reached = [jack];
  for (let at = 0; at < reached.length; at += 1)
    for (const { from, to, when } of wired.anatomy.sections)
      if (from === reached[at] && !reached.includes(to) && plugsAllow(wired, when?.plugs)) reached.push(to);
  return reached.filter((point) => wired.jack.get(point)?.kind === 'signal-out');
}

function plugsAllow({ plugged }: WiredDevice, plugs: Readonly<Record<string, boolean>> | undefined): boolean {
  for (const jack in plugs) if (plugged.has(jack) !== plugs[jack]) return false;
  return true;
}
