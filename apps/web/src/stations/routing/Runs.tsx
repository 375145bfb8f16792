import { compareTraces, insideOf, why } from '@yunta/core';
import { useEffect, useMemo, useState } from 'react';
import { useShow } from '../../api/rig.tsx';
import { Why } from '../../ui/Why.tsx';
import { Differences } from './Differences.tsx';
import { type Compared, useCompared } from './use-compared.ts';
import { SignalDiagram } from './SignalDiagram.tsx';

const none: ReadonlySet<number> = new Set();

/** The run of the selected sound; under it, where one is chosen, the run that it is compared with. */
export function Runs({
  compared,
  folds,
  controls,
  onUnfold,
}: {
  readonly compared: string;
  readonly folds: boolean;
  readonly controls: boolean;
  readonly onUnfold: () => void;
}) {
  const { tracer, sound, wiring } = useShow();
  const [pass, setPass] = useState(0);
  const trace = useMemo(() => tracer.trace(sound), [tracer, sound]);
  const other = useCompared(compared);
  const comparison = useMemo(() => other && compareTraces(trace, other.trace), [trace, other]);
  const shared = { folds, controls, onUnfold };
  return (
    <>
      {other && comparison && <Differences trace={trace} other={other} comparison={comparison} />}
      <SignalDiagram
        {...shared}
        wiring={wiring}
        trace={trace}
        name={sound?.name ?? 'the rig as it powers up'}
        differs={comparison?.onlyFirst ?? none}
        selected={pass}
        onSelect={setPass}
      />
      <InsideUnits />
      {other && comparison && <Other {...shared} other={other} differs={comparison.onlySecond} />}
    </>
  );
}

/** What is passed inside units of many blocks, in the order of their presets. */
function InsideUnits() {
  const { tracer, sound, wiring } = useShow();
  const inside = useMemo(() => insideOf(tracer, sound), [tracer, sound]);
  if (inside.length === 0) return null;
  const latency = why.latencyInside(wiring, inside);
  return (
    <p className="keys sheet" style={{ margin: 0, padding: '6px 10px', borderTop: 0 }}>
      {inside.map(({ device, words }) => (
        <span key={device}>
          inside <b style={{ color: 'var(--ink)' }}>{wiring.device.get(device)!.device.name}</b>{' '}
          <span className="mono">{words}</span>
        </span>
      ))}
      {latency && (
        <span>
          latency <Why evidence={latency} />
        </span>
      )}
    </p>
  );
}

function Other({
  other,
  differs,
  ...shared
}: {
  readonly other: Compared;
  readonly differs: ReadonlySet<number>;
  readonly folds: boolean;
  readonly controls: boolean;
  readonly onUnfold: () => void;
}) {
  const [pass, setPass] = useState(0);
  useEffect(() => setPass(0), [other]);
  return (
    <section aria-label={`Compared with: ${other.name}`}>
      <h2 style={{ margin: '12px 0 4px' }}>{other.name}</h2>
      <SignalDiagram
        {...shared}
        wiring={other.wiring}
        trace={other.trace}
        name={other.name}
        differs={differs}
        selected={pass}
        onSelect={setPass}
      />
    </section>
  );
}
