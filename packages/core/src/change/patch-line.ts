import { mateOf } from '../model/jack-kinds.ts';
import type { Jack } from '../model/anatomy.ts';
import { isOut } from '../model/cable-ends.ts';
import type { Plug, Rig } from '../model/rig.ts';
import { buildWiring, type WiredDevice } from '../model/wiring.ts';

/** The plugs that a line names, those that it comes from first. */
export type PatchLine =
  | { readonly ok: true; readonly plugs: readonly Plug[] }
  | { readonly ok: false; readonly reason: 'no-arrow' | 'no-device' | 'no-jack'; readonly typed: string };

/**
 * Reads a cable as people say it: `guitar > switcher`, `switcher send 4 > combo input`; a Y cord with several ends on
 * a side: `guitar > amp + tuner`. Each end is a device's name (or its beginning) and, where wanted, a jack; left out,
 * the first free jack that fits is taken.
 */
export function readPatchLine(rig: Rig, line: string): PatchLine {
  const { devices } = buildWiring(rig);
  const sides = line.split(/->|>|→/).map((side) => endsIn(devices, side));
  if (sides.length !== 2 || sides.flat().some((end) => end === ''))
    return { ok: false, reason: 'no-arrow', typed: line.trim() };
  const named: Side[][] = [];
  for (const side of sides) {
    const found: Side[] = [];
    for (const typed of side) {
      const end = sideOf(devices, typed);
      if (!end) return { ok: false, reason: 'no-device', typed };
      found.push(end);
    }
    named.push(found);
  }
  const [from, to] = named;
  for (const first of candidates(from[0], isOut)) {
    const plugs = [plugOf(from[0], first)];
    const isTaken = (wired: WiredDevice, jack: Jack) =>
      plugs.some((plug) => plug.device === wired.device.id && plug.jack === jack.id);
    const takeAll = (ends: readonly Side[], kind: Jack['kind'] | undefined): boolean =>
      ends.every((end) => {
        const fitting = candidates(
          end,
          (jack) =>
            jack.kind === kind && (jack.speaker ?? false) === (first.speaker ?? false) && !isTaken(end.wired, jack),
        )[0];
        if (fitting) plugs.push(plugOf(end, fitting));
        return fitting !== undefined;
      });
    if (takeAll(from.slice(1), first.kind) && takeAll(to, mateOf(first.kind))) return { ok: true, plugs };
  }
  return { ok: false, reason: 'no-jack', typed: line.trim() };
}

const plugOf = ({ wired }: Side, jack: Jack): Plug => ({ device: wired.device.id, jack: jack.id });

/** The ends that a side names, split at each plus that stands alone and in no device's name. */
function endsIn(devices: readonly WiredDevice[], side: string): readonly string[] {
  const names = devices.map(({ device }) => device.name.toLowerCase()).filter((name) => /\s\+(\s|$)/.test(name));
  const isInName = (at: number) =>
    names.some((name) => [...name].some((sign, i) => sign === '+' && side.toLowerCase().startsWith(name, at - i)));
  const ends: string[] = [];
  let from = 0;
  for (const { index } of side.matchAll(/(?<=\s)\+(?=\s|$)/g)) {
    if (isInName(index)) continue;
    ends.push(side.slice(from, index).trim());
    from = index + 1;
  }
  return [...ends, side.slice(from).trim()];
}

interface Side {
  readonly wired: WiredDevice;
  readonly rest: string;
}

/**
 * The device whose name the side begins with (the longest such), else the one whose name begins with the side's first
 * words.
 */
function sideOf(devices: readonly WiredDevice[], typed: string): Side | undefined {
  const side = typed.toLowerCase();
  const whole = devices.filter(
    (wired) => side === wired.device.name.toLowerCase() || side.startsWith(`${wired.device.name.toLowerCase()} `),
  );
  const longest = whole.sort((a, b) => b.device.name.length - a.device.name.length)[0];
  if (longest) return { wired: longest, rest: side.slice(longest.device.name.length).trim() };
  const words = side.split(' ');
  for (let n = words.length; n > 0; n -= 1) {
    const start = words.slice(0, n).join(' ');
    const found = devices.find(
      (wired) =>
        wired.device.name.toLowerCase().startsWith(start) || wired.device.name.toLowerCase().includes(` ${start}`),
    );
    if (found) return { wired: found, rest: words.slice(n).join(' ') };
  }
  return undefined;
}

function candidates(side: Side, fits: (jack: Jack) => boolean): readonly Jack[] {
  const named = (jack: Jack) =>
    side.rest === '' || jack.label.toLowerCase() === side.rest || jack.id === side.rest.replaceAll(' ', '-');
  return side.wired.anatomy.jacks.filter((jack) => fits(jack) && named(jack) && !side.wired.plugged.has(jack.id));
}
