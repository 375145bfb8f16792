import { anatomyOf } from '../model/archetypes/registry.ts';
import { inOrder } from '../model/documents.ts';
import { jackOf } from '../model/jacks.ts';
import { lineIn, lineOut, mainsInlet, outletId, type PowerLine } from '../model/power.ts';
import type { Cable, Device, Rig } from '../model/rig.ts';

/** What is plugged into one end of a line. */
export interface LineEnd {
  /** The jack of the panel or multi-core itself. */
  readonly jack: string;
  readonly cable: Cable | undefined;
  /** Where the cable's other ends are. */
  readonly to: readonly { readonly device: string; readonly jack: string }[];
}

/** A line that is led through. */
export interface LineThrough {
  readonly number: number;
  readonly label: string;
  readonly carries: 'signal' | 'MIDI' | 'power' | 'mains';
  readonly into: LineEnd;
  readonly out: LineEnd;
  /** Of a line of power: its wire. */
  readonly wire: PowerLine | undefined;
  /** `open`: plugged in at one end alone; `spare`: at neither. */
  readonly is: 'in use' | 'open' | 'spare';
}

/** A panel or a multi-core with its lines, numbered as they stand. */
export interface LedThrough {
  readonly device: Device;
  readonly lines: readonly LineThrough[];
}

/** Every panel and multi-core of a rig, with what each of its lines carries from where to where. */
export function linesThrough(rig: Rig): readonly LedThrough[] {
  return inOrder(rig.devices)
    .filter(({ type }) => type.archetype === 'panel' || (type.power?.lines ?? []).length > 0)
    .map((device) => ({
      device,
      lines: pairsOf(device).map(({ label, carries, from, to, wire }, i): LineThrough => {
        const [into, out] = [from, to].map((jack) => endAt(rig, device, jack));
        const plugged = [into, out].filter(({ cable }) => cable !== undefined).length;
        return {
          number: i + 1,
          label,
          carries,
          into,
          out,
          wire,
          is: (['spare', 'open', 'in use'] as const)[plugged],
        };
      }),
    }));
}

interface Pair {
  readonly label: string;
  readonly carries: LineThrough['carries'];
  readonly from: string;
  readonly to: string;
  readonly wire?: PowerLine;
}

/** The jacks that belong together: of each line where it goes in and where it comes out. */
function pairsOf({ type }: Device): readonly Pair[] {
  const { jacks, sections } = anatomyOf(type);
  const hasJack = (id: string): boolean => jacks.some((jack) => jack.id === id);
  // A tap hears a line that is led through already; a side that plugs decide on stands for the same jacks.
  const seen = new Set<string>();
  const signals = sections.flatMap(({ label, from, to }): readonly Pair[] => {
    if (!hasJack(from) || !hasJack(to) || seen.has(from) || seen.has(to)) return [];
    seen.add(from).add(to);
    const side = jacks.find(({ id }) => id === from)!.side;
    return [{ label: side ? `${label} ${side}` : label, carries: 'signal', from, to }];
  });
  const midi = jacks.find(({ kind }) => kind === 'midi-in');
  const through = jacks.find(({ kind }) => kind === 'midi-thru');
  const { lines = [], mains, outlets } = type.power ?? {};
  return [
    ...signals,
    ...(midi && through ? [{ label: 'MIDI', carries: 'MIDI' as const, from: midi.id, to: through.id }] : []),
    ...lines.map((wire): Pair => ({
      label: wire.label,
      carries: 'power',
      from: lineIn(wire.id),
      to: lineOut(wire.id),
      wire,
    })),
    ...(mains && outlets ? [{ label: 'Mains', carries: 'mains' as const, from: mainsInlet, to: outletId(1) }] : []),
  ];
}

function endAt(rig: Rig, { id, type }: Device, jack: string): LineEnd {
  const isHere = (plug: { readonly device: string; readonly jack: string }): boolean =>
    plug.device === id && plug.jack === jack;
  const cable = inOrder(rig.cables).find(({ plugs }) => plugs.some(isHere));
  return {
    jack: jackOf({ type }, jack)?.label ?? jack,
    cable,
    to: (cable?.plugs ?? [])
      .filter((plug) => !isHere(plug))
      .map((plug) => {
        const other = rig.devices[plug.device];
        return { device: other.name, jack: jackOf(other, plug.jack)?.label ?? plug.jack };
      }),
  };
}

/** `Amp send, C12`: what a line comes from or goes to; empty where nothing is plugged in. */
export const lineEndWords = ({ cable, to }: LineEnd): string =>
  cable ? [...to.map(({ device, jack }) => `${device} ${jack.toLowerCase()}`), cable.tag].join(', ') : '';
