import type { Jack } from '../model/anatomy.ts';
import type { Plug, Rig } from '../model/documents.ts';
import { wire, type WiredDevice } from '../model/wiring.ts';

export type PatchLine = { readonly ok: true; readonly from: Plug; readonly to: Plug } | { readonly ok: false; readonly reason: 'no-arrow' | 'no-device' | 'no-jack'; readonly typed: string };

const out: readonly Jack['kind'][] = ['signal-out', 'midi-out', 'midi-thru', 'midi-merge', 'contact-out'];
const partner: Partial<Record<Jack['kind'], Jack['kind']>> = { 'signal-out': 'signal-in', 'midi-out': 'midi-in', 'midi-thru': 'midi-in', 'midi-merge': 'midi-in', 'contact-out': 'contact-in' };

/**
 * Reads a cable as people say it: `guitar > switcher`, `switcher send 4 > combo input`. Each side is a device's
 * name (or its beginning) and, where wanted, a jack; left out, the first free jack that fits is taken.
 */
export function readPatchLine(rig: Rig, line: string): PatchLine {
  const sides = line.split(/>|→|->/).map((side) => side.trim());
  if (sides.length !== 2 || sides.some((side) => side === '')) return { ok: false, reason: 'no-arrow', typed: line.trim() };
  const wiring = wire(rig);
  const from = sideOf(wiring.devices, sides[0]);
  if (!from) return { ok: false, reason: 'no-device', typed: sides[0] };
  const to = sideOf(wiring.devices, sides[1]);
  if (!to) return { ok: false, reason: 'no-device', typed: sides[1] };
  for (const jack of candidates(from, (one) => out.includes(one.kind))) {
    const fitting = candidates(to, (one) => one.kind === partner[jack.kind] && (jack.speaker ?? false) === (one.speaker ?? false))[0];
    if (fitting) return { ok: true, from: { device: from.wired.device.id, jack: jack.id }, to: { device: to.wired.device.id, jack: fitting.id } };
  }
  return { ok: false, reason: 'no-jack', typed: line.trim() };
}

interface Side {
  readonly wired: WiredDevice;
  readonly rest: string;
}

/** The device whose name the side begins with (the longest such), else the one whose name begins with the side's first words. */
function sideOf(devices: readonly WiredDevice[], typed: string): Side | undefined {
  const side = typed.toLowerCase();
  const whole = devices.filter((wired) => side === wired.device.name.toLowerCase() || side.startsWith(`${wired.device.name.toLowerCase()} `));
  const longest = whole.sort((a, b) => b.device.name.length - a.device.name.length)[0];
  if (longest) return { wired: longest, rest: side.slice(longest.device.name.length).trim() };
  const words = side.split(' ');
  for (let n = words.length; n > 0; n -= 1) {
    const start = words.slice(0, n).join(' ');
    const found = devices.find((wired) => wired.device.name.toLowerCase().startsWith(start) || wired.device.name.toLowerCase().includes(` ${start}`));
    if (found) return { wired: found, rest: words.slice(n).join(' ') };
  }
  return undefined;
}

function candidates(side: Side, fits: (jack: Jack) => boolean): readonly Jack[] {
  const named = (jack: Jack) => side.rest === '' || jack.label.toLowerCase() === side.rest || jack.id === side.rest.replaceAll(' ', '-');
  return side.wired.anatomy.jacks.filter((jack) => fits(jack) && named(jack) && !side.wired.plugged.has(jack.id));
}
