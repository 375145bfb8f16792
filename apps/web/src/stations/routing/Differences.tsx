import {
  controlLabel,
  settingDifferences,
  type Trace,
  type TraceComparison,
  valueLabel,
  type Wiring,
} from '@yunta/core';
import { useShow } from '../../api/rig.tsx';
import type { Compared } from './use-compared.ts';

/** Where two runs part, in words: what only one of them has, and what is heard in both and set otherwise. */
export function Differences({
  trace,
  other,
  comparison,
}: {
  readonly trace: Trace;
  readonly other: Compared;
  readonly comparison: TraceComparison;
}) {
  const { tracer, sound, wiring } = useShow();
  const [here, there] = [activeIn(trace), activeIn(other.trace)];
  const only = (own: Active, its: Active, { rig }: Wiring) =>
    [...own.keys()].flatMap((id) => (its.has(id) ? [] : [rig.devices[id].name])).join(', ');
  const settings = settingDifferences({ tracer, sound }, other);
  const name = sound?.name ?? 'Powered up';
  const lines = [
    ...(only(here, there, wiring) === '' ? [] : [`Only in ${name}: ${only(here, there, wiring)}.`]),
    ...(only(there, here, other.wiring) === '' ? [] : [`Only in ${other.name}: ${only(there, here, other.wiring)}.`]),
    ...[...here].flatMap(([id, sections]) => {
      const its = there.get(id);
      return its === undefined || its === sections
        ? []
        : [`${wiring.rig.devices[id].name}: ${sections} here, ${its} there.`];
    }),
    ...settings.map(
      ({ ref, first, second }) =>
        `${controlLabel(wiring, ref)}: ${valueLabel(wiring, ref, first ?? null)} here, ${valueLabel(other.wiring, ref, second ?? null)} there.`,
    ),
  ];
  const isSame = comparison.onlyFirst.size + comparison.onlySecond.size === 0;
  return (
    <ul
      className="sheet"
      aria-label="What differs"
      style={{ margin: 0, padding: '8px 10px 8px 26px', borderBottom: 0 }}
    >
      {lines.map((line) => (
        <li key={line}>{line}</li>
      ))}
      {lines.length === 0 && (
        <li>{isSame ? 'The two run alike, and nothing that is heard differs.' : 'The same pieces, in another way.'}</li>
      )}
    </ul>
  );
}

/** What each device does to the signal in a run, by its id. */
type Active = ReadonlyMap<string, string>;

function activeIn({ passes }: Trace): Active {
  const found = new Map<string, string>();
  for (const { device, activeSections, bypassed } of passes)
    if (activeSections.length > 0 && !bypassed)
      found.set(device, [found.get(device), activeSections.join(', ')].filter(Boolean).join('; '));
  return found;
}
