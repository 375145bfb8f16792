import {
  type Cable,
  type CableRun,
  cableRuns,
  commands,
  cutListOf,
  endChoices,
  type EndToMake,
  freshId,
  knownLength,
  lengthIn,
  lengthLabel,
  lengthTyped,
  lineEndWords,
  linesThrough,
  loomsOf,
  plugFits,
  pluggingOrder,
  type Reel,
  setReels,
  why,
} from '@yunta/core';
import { useMemo } from 'react';
import { useShow } from '../../api/rig.tsx';
import { CellSelect } from '../../ui/CellSelect.tsx';
import { DataTable } from '../../ui/DataTable.tsx';
import { Fold } from '../../ui/Fold.tsx';
import { InlineField } from '../../ui/InlineField.tsx';
import { LinkButton } from '../../ui/LinkButton.tsx';
import { numberShown } from '../../ui/numbers.ts';
import { Why } from '../../ui/Why.tsx';

/** Every cable with its ends as they have to be, its length, and what is cut from which reel. */
export function CableSheet() {
  const { show } = useShow();
  const runs = useMemo(() => cableRuns(show.rig), [show.rig]);
  const { known, metres } = knownLength(runs);
  const unit = show.rig.settings.lengthUnit;
  return (
    <section aria-label="Cables">
      <div className="sectionhead">
        <h2>Cables</h2>
        <span className="soft">
          {runs.length} cables, {lengthLabel(metres as never, unit)} as far as {known} lengths are known
        </span>
      </div>
      {runs.length > 0 && (
        <div className="sheet scroll-x buildcables" role="region" aria-label="Cable schedule" tabIndex={0}>
          <DataTable className="build">
            <thead>
              <tr>
                <th style={{ width: 62 }}>Tag</th>
                <th>From</th>
                <th>To</th>
                <th>Runs</th>
                <th style={{ width: 90 }}>Length</th>
                <th style={{ width: 100 }}>Loom</th>
              </tr>
            </thead>
            <tbody>
              {runs.map((run) => (
                <RunRow key={run.cable.id} run={run} />
              ))}
            </tbody>
          </DataTable>
        </div>
      )}
      {runs.length > 0 && <Looms runs={runs} />}
      <LedThroughTable />
      <Reels runs={runs} />
    </section>
  );
}

/** What is tied together, and in which order it is plugged in. */
function Looms({ runs }: { readonly runs: readonly CableRun[] }) {
  const { show } = useShow();
  const unit = show.rig.settings.lengthUnit;
  const looms = loomsOf(runs);
  return (
    <Fold title="Looms, and the order of plugging">
      <div className="buildcuts">
        {looms.length === 0 ? (
          <p className="soft">No loom yet: name one beside the cables that are tied together.</p>
        ) : (
          <ul aria-label="Looms">
            {looms.map(({ name, members, metres, unknown }) => (
              <li key={name}>
                <b>{name}</b>, {metres === null ? 'of no known length' : lengthLabel(metres as never, unit)}
                {unknown > 0 ? `, ${unknown} of unknown length` : ''}:{' '}
                {members.map(({ cable }) => cable.tag).join(', ')}
              </li>
            ))}
          </ul>
        )}
        <p>
          Mute first; then{' '}
          {pluggingOrder(runs)
            .map(({ cable }) => cable.tag)
            .join(', ')}
          .{' '}
          <span className="soft">
            Loudspeakers before anything is on, the mains last; out in the reverse, a valve amplifier switched off
            first.
          </span>
        </p>
      </div>
    </Fold>
  );
}

/** One end: its jack, and the connector that it needs, or that somebody has said is on it. */
function End({ cable, end }: { readonly cable: Cable; readonly end: EndToMake }) {
  const { show, run } = useShow();
  const { plug, takes, entered, clears } = end;
  const shown = `${end.connector}${end.bent ? ', angled' : entered?.bent === false ? ', straight' : ''}`;
  const asTaken = `${takes}${clears === 'angled' ? ', angled' : ''}`;
  const pick = (picked: string) => {
    const [, name, how] = /^(.*?)(, angled|, straight)?$/.exec(picked)!;
    const bent = how === undefined ? {} : { bent: how === ', angled' };
    run(commands.setEnd(show, cable.id, plug, picked === '' ? undefined : { plug: name, ...bent }));
  };
  return (
    <span className="buildend">
      {end.device} <span className="soft">{end.jack.toLowerCase()}</span>
      <span className="buildplug">
        <CellSelect
          label={`End of ${cable.tag} at ${end.device} ${end.jack.toLowerCase()}`}
          value={entered ? shown : ''}
          shownAs={shown}
          choices={() => [
            { value: '', label: `as it has to be: ${asTaken}` },
            ...endChoices(cable.kind, takes).flatMap((name) =>
              ['', ', angled', ', straight'].map((how) => ({ value: `${name}${how}`, label: `${name}${how}` })),
            ),
          ]}
          onPick={pick}
        />
      </span>
      {entered && plugFits(takes, end.connector) !== 'yes' && <b className="stop"> takes {takes}</b>}
      {clears === 'none' && <b className="stop"> no room</b>}
    </span>
  );
}

function RunRow({ run: cableRun }: { readonly run: CableRun }) {
  const { cable, ends, runs } = cableRun;
  const { show, attempt } = useShow();
  const unit = show.rig.settings.lengthUnit ?? 'm';
  const [first, ...more] = ends;
  return (
    <tr>
      <td className="mono">{cable.tag}</td>
      <td>
        <End cable={cable} end={first} />
      </td>
      <td>
        {more.map((end) => (
          <End key={`${end.plug.device} ${end.plug.jack}`} cable={cable} end={end} />
        ))}
      </td>
      <td className="num">
        {runs !== null && <Why evidence={why.cableRun(cableRun, lengthLabel(runs as never, unit))} />}
      </td>
      <td>
        <InlineField
          look="mono"
          label={`Measured length of ${cable.tag}`}
          value={cable.length === null ? '' : numberShown(lengthIn(cable.length, unit))}
          unit={unit}
          placeholder={runs === null ? '—' : numberShown(lengthIn(runs as never, unit))}
          onCommit={(typed) => {
            const read = lengthTyped(typed, unit);
            return read === undefined
              ? `“${typed}” is not a length: write 6, 6 m or 20 ft.`
              : attempt(commands.setCable(show, cable.id, 'length', read as never));
          }}
        />
      </td>
      <td>
        <InlineField
          label={`Loom that ${cable.tag} is in`}
          value={cable.loom ?? ''}
          placeholder="—"
          onCommit={(loom) => attempt(commands.setCable(show, cable.id, 'loom', loom === '' ? null : loom))}
        />
      </td>
    </tr>
  );
}

/** What each line of a panel or a multi-core carries, and which are spare. */
function LedThroughTable() {
  const { show } = useShow();
  const all = useMemo(() => linesThrough(show.rig), [show.rig]);
  if (all.length === 0) return null;
  const unit = show.rig.settings.lengthUnit;
  return (
    <Fold title="Lines of panels and multi-cores">
      {all.map(({ device, lines }) => (
        <div key={device.id} className="sheet scroll-x">
          <DataTable className="build" aria-label={`Lines of ${device.name}`}>
            <thead>
              <tr>
                <th style={{ width: 46 }}>Line</th>
                <th>{device.name}</th>
                <th>Comes from</th>
                <th>Goes to</th>
                <th>Carries</th>
              </tr>
            </thead>
            <tbody>
              {lines.map(({ number, label, carries, into, out, wire, is }) => (
                <tr key={number}>
                  <td className="num">{number}</td>
                  <td>{label}</td>
                  <td>{lineEndWords(into)}</td>
                  <td>{lineEndWords(out)}</td>
                  <td>
                    {carries}
                    {wire ? `, ${lengthLabel(wire.metres as never, unit)} of ${wire.gauge} AWG` : ''}{' '}
                    {is === 'spare' && <span className="soft">spare</span>}
                    {is === 'open' && <b className="powerlow">at one end only</b>}
                  </td>
                </tr>
              ))}
            </tbody>
          </DataTable>
        </div>
      ))}
    </Fold>
  );
}

const reelKinds = [
  { value: 'signal', label: 'signal cables' },
  { value: 'speaker', label: 'loudspeaker cables' },
  { value: 'midi', label: 'MIDI cables' },
  { value: 'contact', label: 'contact cables' },
  { value: 'power', label: 'power leads' },
];

function Reels({ runs }: { readonly runs: readonly CableRun[] }) {
  const { show, run, attempt } = useShow();
  const unit = show.rig.settings.lengthUnit ?? 'm';
  const reels = show.rig.settings.reels ?? [];
  const list = useMemo(() => cutListOf(show.rig, runs), [show.rig, runs]);
  const change = (id: string, changed: Partial<Reel>) =>
    attempt(
      setReels(
        show,
        reels.map((reel) => (reel.id === id ? { ...reel, ...changed } : reel)),
      ),
    );
  const add = () => {
    const taken = Object.fromEntries(reels.map(({ id }) => [id, true]));
    run(
      setReels(show, [...reels, { id: freshId('reel', taken, 'reel'), kind: `Reel ${reels.length + 1}`, metres: 10 }]),
    );
  };
  const nameOf = (id: string): string => reels.find((reel) => reel.id === id)?.kind ?? id;
  return (
    <Fold title={`Cut from reels${reels.length > 0 ? `: ${reels.length}` : ''}`} open={reels.length > 0}>
      <div className="buildreels">
        {reels.map(({ id, kind, metres, carries }) => (
          <span key={id} className="buildreel" role="group" aria-label={kind}>
            <InlineField
              look="boxed"
              label={`Name of ${kind}`}
              value={kind}
              maxLength={40}
              onCommit={(typed) => (typed === '' ? 'A reel needs a name.' : change(id, { kind: typed }))}
            />
            <InlineField
              look="boxed"
              label={`Length of ${kind}`}
              value={numberShown(lengthIn(metres as never, unit))}
              unit={unit}
              onCommit={(typed) => {
                const read = lengthTyped(typed, unit);
                return typeof read !== 'number' || read < 0.1 || read > 2_000
                  ? `“${typed}” is no length of a reel: write 0.1 to 2000 m.`
                  : change(id, { metres: read });
              }}
            />
            <CellSelect
              bordered
              label={`What is cut from ${kind}`}
              value={carries ?? 'signal'}
              choices={reelKinds}
              onPick={(picked) => change(id, { carries: picked as NonNullable<Reel['carries']> })}
            />
            <LinkButton
              aria-label={`Remove ${kind}`}
              onClick={() =>
                run(
                  setReels(
                    show,
                    reels.filter((reel) => reel.id !== id),
                  ),
                )
              }
            >
              Remove
            </LinkButton>
          </span>
        ))}
        <LinkButton onClick={add}>Add a reel</LinkButton>
      </div>
      {reels.length > 0 && (
        <div aria-label="Cut list" role="group" className="buildcuts">
          <p>
            {lengthLabel(list.begun as never, unit)} of reels are begun;{' '}
            {list.isProved
              ? 'no way begins less.'
              : `no way begins less than ${lengthLabel(list.atLeast as never, unit)}.`}
          </p>
          <ul>
            {list.reels.map(({ reel, pieces, left }) => (
              <li key={reel.name}>
                <b>{nameOf(reel.name)}</b>:{' '}
                {pieces.map(({ name, metres }) => `${name} ${lengthLabel(metres as never, unit)}`).join(', ')}{' '}
                <span className="soft">({lengthLabel(left as never, unit)} left)</span>
              </li>
            ))}
            {list.tooLong.map(({ name, metres }) => (
              <li key={name}>
                <b className="stop">
                  {name} is {lengthLabel(metres as never, unit)}: longer than every reel.
                </b>
              </li>
            ))}
            {list.notCut.map(({ name, metres }) => (
              <li key={name}>
                <b className="powerlow">
                  {name}, {lengthLabel(metres as never, unit)}: the reels are used up.
                </b>
              </li>
            ))}
          </ul>
        </div>
      )}
    </Fold>
  );
}
