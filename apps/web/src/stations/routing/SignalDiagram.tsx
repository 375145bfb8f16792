import { useElementSize } from '@mantine/hooks';
import { panelNumber, type Trace, why, type Wiring } from '@yunta/core';
import { useMemo, useRef } from 'react';
import { useShow } from '../../api/rig.tsx';
import { Notice } from '../../ui/Notice.tsx';
import { Why } from '../../ui/Why.tsx';
import { foldTrace, unfolded } from './fold-trace.ts';
import { layWeave, type PlacedPass, strip } from './signal-diagram-layout.ts';
import type { Routed } from './signal-route.ts';

/** What of the run is drawn and how: the same for the selected sound and for what it is compared with. */
interface WeaveProps {
  readonly wiring: Wiring;
  readonly trace: Trace;
  /** What the run is called. */
  readonly name: string;
  /** Passes that the compared run has not. */
  readonly differs: ReadonlySet<number>;
  readonly folds: boolean;
  readonly controls: boolean;
  /** The pass that the keyboard is on. */
  readonly selected: number;
  readonly onSelect: (pass: number) => void;
  readonly onUnfold: () => void;
}

/** The run of the signal through the rig in one sound. Arrow keys walk its passes. */
export function SignalDiagram({
  wiring,
  trace,
  name,
  differs,
  folds,
  controls,
  selected,
  onSelect,
  onUnfold,
}: WeaveProps) {
  const { selectDevice, device } = useShow();
  const { ref, width } = useElementSize();
  const passes = useRef(new Map<number, SVGGElement>());
  const drawn = useMemo(() => (folds ? foldTrace(trace, differs) : unfolded(trace)), [folds, trace, differs]);
  const layout = useMemo(() => layWeave(wiring, drawn, width), [wiring, drawn, width]);
  const at = Math.max(
    0,
    drawn.passes.findIndex(({ stands }) => stands.includes(selected)),
  );
  const take = (index: number) => {
    const { stands, device: of } = drawn.passes[index];
    onSelect(stands[0]);
    if (stands.length > 1) onUnfold();
    selectDevice(of);
    passes.current.get(index)?.focus();
    passes.current.get(index)?.scrollIntoView({ block: 'nearest', inline: 'nearest' });
  };
  const onKeyDown = (event: React.KeyboardEvent) => {
    const by = event.key === 'ArrowRight' ? 1 : event.key === 'ArrowLeft' ? -1 : 0;
    if (by === 0) return;
    event.preventDefault();
    const to = Math.min(drawn.passes.length - 1, Math.max(0, at + by));
    // A folded stretch is walked over; Enter opens it.
    onSelect(drawn.passes[to].stands[0]);
    selectDevice(drawn.passes[to].device);
    passes.current.get(to)?.focus();
    passes.current.get(to)?.scrollIntoView({ block: 'nearest', inline: 'nearest' });
  };
  return (
    <div className="sheet">
      {trace.undecided.map(({ control, device: of, preset, label }) => (
        <Notice key={control + String(preset)}>
          What preset {panelNumber(wiring, of, preset)} of {wiring.device.get(of)!.device.name} holds of “{label}” is
          not entered, and decides where the signal goes: both ways are drawn.
        </Notice>
      ))}
      <div className="weave">
        <div className="rows" style={{ height: layout.height }}>
          {layout.rows.map((row) => (
            <div key={row.name} style={{ top: row.y - 18 }}>
              {row.name}
              <span>{row.note}</span>
            </div>
          ))}
        </div>
        <div className="field" ref={ref}>
          <svg
            width={layout.width}
            height={layout.height}
            onKeyDown={onKeyDown}
            role="group"
            aria-label={`The run in ${name}: ${trace.passes.length} passes`}
          >
            {layout.rails.map((rail) => (
              <g key={rail.device}>
                <title>{rail.name}</title>
                <rect className="railbar" x={rail.x + 2} y={rail.y - 12} width={rail.width - 4} height={24} />
              </g>
            ))}
            {layout.jumpers.map((jumper) => (
              <g key={jumper.jumper.loop}>
                <path
                  className="jump"
                  d={`M ${jumper.x - 18} ${jumper.railY - 12 * Math.sign(jumper.railY - jumper.y || 1)} V ${jumper.y} M ${jumper.x + 18} ${jumper.railY - 12 * Math.sign(jumper.railY - jumper.y || 1)} V ${jumper.y}`}
                />
                <polygon className="strip out" points={stripOf(jumper.x, jumper.y, jumper.width, 30)} />
                <TwoLines className="small" x={jumper.x} y={jumper.y} text={jumper.title} most={9} />
                <title>
                  {jumper.jumper.isFolded
                    ? `Off in this sound: ${jumper.jumper.holds.map((held) => wiring.rig.devices[held].name).join(', ')}`
                    : `${jumper.title}: ${jumper.jumper.label} is out in this sound`}
                </title>
              </g>
            ))}
            {controls && <ControlLines layout={layout} wiring={wiring} />}
            <g aria-hidden="true">
              <RunLines route={layout.route} className={trace.sounds ? 'run' : 'run lost'} />
              {layout.rails.map(
                (rail) =>
                  rail.label && (
                    <text key={rail.device} className="small" x={rail.label.x} y={rail.label.y}>
                      {rail.name}
                    </text>
                  ),
              )}
            </g>
            {layout.passes.map((placed) => (
              <PassMark
                key={placed.pass.index}
                placed={placed}
                stands={placed.pass.stands.map((index) => wiring.rig.devices[trace.passes[index].device].name)}
                differs={placed.pass.stands.some((index) => differs.has(index))}
                selected={placed.pass.index === at && device === placed.pass.device}
                tabbable={placed.pass.index === at}
                onSelect={() => take(placed.pass.index)}
                keep={(node) =>
                  node ? passes.current.set(placed.pass.index, node) : passes.current.delete(placed.pass.index)
                }
              />
            ))}
          </svg>
        </div>
      </div>
      <div className="legend">
        <span>
          <Why evidence={why.passesOf(trace)} />
        </span>
        <span>heavy: the live line</span>
        <span>dashed: in a loop that is off</span>
        <span>wide bar: passed more than once</span>
        {differs.size > 0 && <span>wedge: not so in the other</span>}
        {drawn.hidden > 0 && <span>{drawn.hidden} folded</span>}
        {trace.widths.links.flat().includes('stereo') && <span>double line: stereo</span>}
        {!trace.sounds && (
          <span className="stop">
            {trace.passes.length === 0
              ? 'No instrument is plugged in yet.'
              : `Nothing is heard: the line ends at ${wiring.rig.devices[trace.passes.at(-1)!.device].name}, before a loudspeaker or the desk.`}
          </span>
        )}
        {trace.cycles
          .filter((cycle) => cycle.verdict !== 'quiet')
          .map((cycle) => (
            <span key={cycle.devices.join()} className="stop">
              {cycle.devices.map((id) => wiring.rig.devices[id].name).join(' → ')} comes back to itself and{' '}
              {cycle.verdict} (loop gain <Why evidence={why.loopGain(cycle)} />
              ).
            </span>
          ))}
      </div>
    </div>
  );
}

/** The live line: stereo as two strokes; where a stretch only runs over another, that one is parted. */
function RunLines({ route, className }: { readonly route: Routed; readonly className: string }) {
  const stereo = route.paths.filter((path) => path.isStereo);
  return (
    <>
      {stereo.map((path, i) => (
        <path key={i} className={`${className} double`} d={path.d} />
      ))}
      {stereo.map((path, i) => (
        <path key={i} className="between" d={path.d} />
      ))}
      {route.paths
        .filter((path) => !path.isStereo)
        .map((path, i) => (
          <path key={i} className={className} d={path.d} />
        ))}
      {route.crossings.map(({ x, y }) => (
        <g key={`${x} ${y}`}>
          <rect className="parted" x={x - 6} y={y - 5} width={12} height={10} />
          <path className={className} d={`M ${x} ${y - 6} V ${y + 6}`} />
        </g>
      ))}
      {route.sides.map(({ x, y, side }) => (
        <text key={`${x} ${y}`} className="small" x={x} y={y}>
          {side === 'left' ? 'L' : 'R'}
        </text>
      ))}
    </>
  );
}

const stripOf = (x: number, y: number, width: number, height: number): string => {
  const [l, r, t, b] = [x - width / 2, x + width / 2, y - height / 2, y + height / 2];
  return `${l + 5},${t} ${r},${t} ${r - 5},${b} ${l},${b}`;
};

const short = (text: string, most: number): string => (text.length > most ? `${text.slice(0, most - 1)}…` : text);

function PassMark({
  placed,
  stands,
  differs,
  selected,
  tabbable,
  onSelect,
  keep,
}: {
  readonly placed: PlacedPass;
  /** Names of the pieces that it stands for. */
  readonly stands: readonly string[];
  readonly differs: boolean;
  readonly selected: boolean;
  readonly tabbable: boolean;
  readonly onSelect: () => void;
  readonly keep: (node: SVGGElement | null) => void;
}) {
  const { pass, x, width, y, onRail, title, note, isWide } = placed;
  const middle = x + width / 2;
  const number = pass.stands[0] + 1;
  const named = stands.length > 1 ? `${stands.length} that do nothing here: ${stands.join(', ')}` : title;
  const label = `${number}. ${named}${note ? `, ${note}` : ''}${isWide ? ', goes on in stereo' : ''}${differs ? ', not so in the other' : ''}`;
  return (
    <g
      ref={keep}
      className={`pass${selected ? ' inhand' : ''}`}
      tabIndex={tabbable ? 0 : -1}
      role="button"
      aria-label={label}
      aria-pressed={selected}
      onClick={onSelect}
      onKeyDown={(event) => (event.key === 'Enter' || event.key === ' ') && onSelect()}
    >
      <title>{label}</title>
      {differs && (
        <path
          className="wedge"
          d={onRail ? `M ${middle} ${y - 2} l -5 -8 h 10 z` : `M ${middle} ${y - strip.height / 2} l -6 -9 h 12 z`}
        />
      )}
      {onRail ? (
        <>
          <rect className="railhit" x={x + 6} y={note ? y + 13 : y - 9} width={width - 12} height={18} />
          <text className="small" x={middle} y={y + 26} textAnchor="middle">
            {short(note, Math.max(15, Math.floor(width / 5.6)))}
          </text>
        </>
      ) : (
        <>
          <polygon
            className={stands.length > 1 ? 'strip folded' : 'strip'}
            points={stripOf(middle, y, strip.width, strip.height)}
          />
          <TwoLines x={middle} y={y} text={title} most={9} weight={600} />
          {note && (
            <text className="small" x={middle} y={y + 28} textAnchor="middle">
              {note}
            </text>
          )}
        </>
      )}
    </g>
  );
}

/** A name in one line, or broken at a space into two. */
function TwoLines({
  x,
  y,
  text,
  most,
  className,
  weight,
}: {
  readonly x: number;
  readonly y: number;
  readonly text: string;
  readonly most: number;
  readonly className?: string;
  readonly weight?: number;
}) {
  const breaks = [...text.matchAll(/ /g)].map((match) => match.index);
  const at = text.length <= most ? -1 : (breaks.filter((i) => i <= most).at(-1) ?? breaks[0] ?? -1);
  const lines = at < 0 ? [text] : [text.slice(0, at), text.slice(at + 1)];
  return (
    <text
      className={className}
      x={x}
      textAnchor="middle"
      fontWeight={weight}
      style={{ fontSize: Math.max(...lines.map((line) => line.length)) > 9 ? 9.5 : className ? 10.5 : 11 }}
    >
      {lines.map((line, i) => (
        <tspan key={i} x={x} y={y + 4 + (lines.length === 1 ? 0 : i * 12 - 6)}>
          {short(line, most + 1)}
        </tspan>
      ))}
    </text>
  );
}

/** MIDI and contacts as thin ticked lines between the pieces that are drawn. */
function ControlLines({ layout, wiring }: { readonly layout: ReturnType<typeof layWeave>; readonly wiring: Wiring }) {
  const at = (device: string) => {
    const placed = layout.passes.find((pass) => pass.pass.device === device);
    const bypassed = layout.jumpers.find((jumper) => jumper.jumper.holds.includes(device));
    return placed
      ? { x: placed.x + placed.width / 2, y: placed.y }
      : bypassed
        ? { x: bypassed.x, y: bypassed.y }
        : null;
  };
  const links = [
    ...wiring.midiLinks.map((link) => [link.from, link.to] as const),
    ...wiring.contactLinks.map((link) => [link.controller, link.device] as const),
  ];
  return (
    <g aria-hidden="true">
      {links.map(([from, to], i) => {
        const a = at(from);
        const b = at(to);
        return a && b ? (
          <path
            key={i}
            className="ctl"
            strokeWidth={2}
            d={`M ${a.x} ${a.y + 14} C ${a.x} ${a.y + 40}, ${b.x} ${b.y + 40}, ${b.x} ${b.y + 14}`}
          />
        ) : null;
      })}
    </g>
  );
}
