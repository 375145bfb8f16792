import {
  type Cable,
  type CableEnd,
  commands,
  endsOf,
  inOrder,
  isOut,
  lengthIn,
  lengthTyped,
  type Jack,
  type Rig,
  buildWiring,
} from '@yunta/core';
import { useEffect, useRef, useState } from 'react';
import { useShow } from '../../api/rig.tsx';
import { CellSelect } from '../../ui/CellSelect.tsx';
import { InlineField } from '../../ui/InlineField.tsx';
import { numberShown } from '../../ui/numbers.ts';
import { poleChoiceOf, poleChoices } from './pole-choices.ts';
import styles from './routing.module.css';
import { RigEntry } from '../entry/RigEntry.tsx';
import { LinkButton } from '../../ui/LinkButton.tsx';
import { DataTable } from '../../ui/DataTable.tsx';

/** What is plugged into what, each row edited in place; a new cable is said in one line. */
export function PatchTable() {
  const { show } = useShow();
  const cables = inOrder(show.rig.cables);
  const list = useRef<HTMLDivElement>(null);
  const count = useRef(cables.length);
  // What was added stands where it can be seen: the list scrolls by itself, the line that one types in stays.
  useEffect(() => {
    if (cables.length > count.current && list.current) list.current.scrollTop = list.current.scrollHeight;
    count.current = cables.length;
  }, [cables.length]);
  return (
    <>
      <div className="sectionhead">
        <h2>Patch</h2>
        <span className="soft">
          {cables.length} {cables.length === 1 ? 'cable' : 'cables'}
        </span>
      </div>
      <RigEntry
        label="Add a cable"
        placeholder="What plugs into what? guitar > switcher, or switcher send 4 > combo input"
      />
      <div className={`sheet ${styles.list}`} ref={list} role="region" aria-label="Cables" tabIndex={0}>
        {cables.length === 0 ? (
          <p className="soft" style={{ padding: '4px 12px' }}>
            No cables yet.
          </p>
        ) : (
          <DataTable>
            <thead>
              <tr>
                <th style={{ width: 72 }}>Tag</th>
                <th>From</th>
                <th>To</th>
                <th style={{ width: 76 }}>Length</th>
                <th style={{ width: 88 }}>Loom</th>
                <th style={{ width: 92 }} />
              </tr>
            </thead>
            <tbody>
              {cables.map((cable) => (
                <CableRow key={cable.id} cable={cable} />
              ))}
            </tbody>
          </DataTable>
        )}
      </div>
    </>
  );
}

function CableRow({ cable }: { readonly cable: Cable }) {
  const { show, wiring, run, attempt } = useShow();
  const [isAdding, setAdding] = useState(false);
  const adder = useRef<HTMLButtonElement>(null);
  const { from, to } = endsOf(wiring, cable);
  const set = <K extends 'tag' | 'loom' | 'length'>(field: K, value: Cable[K]) =>
    attempt(commands.setCable(show, cable.id, field, value));
  const setTag = (tag: string) => {
    const other = Object.values(show.rig.cables).find((each) => each.id !== cable.id && each.tag === tag);
    return other
      ? `Another cable has the tag ${tag}: tags are read off the cable, so each is its own.`
      : set('tag', tag);
  };
  const unit = show.rig.settings.lengthUnit ?? 'm';
  const setLength = (typed: string) => {
    const read = lengthTyped(typed, unit);
    return read === undefined ? `“${typed}” is not a length: write 6, 6 m or 20 ft.` : set('length', read);
  };
  return (
    <tr>
      <td>
        <InlineField look="tape" label={`Tag of ${cable.tag}`} value={cable.tag} onCommit={setTag} />
      </td>
      <td>
        <Ends cable={cable} side="From" ends={from} />
      </td>
      <td>
        <Ends cable={cable} side="To" ends={to} />
        <PolesSelect cable={cable} ends={[...from, ...to]} />
        {isAdding && (
          <NewEnd
            cable={cable}
            onDone={() => {
              setAdding(false);
              adder.current?.focus();
            }}
          />
        )}
      </td>
      <td>
        <InlineField
          look="mono"
          label={`Length of ${cable.tag}`}
          value={cable.length === null ? '' : numberShown(lengthIn(cable.length, unit))}
          unit={unit}
          placeholder="—"
          onCommit={setLength}
        />
      </td>
      <td>
        <InlineField
          label={`Loom of ${cable.tag}`}
          value={cable.loom ?? ''}
          placeholder="—"
          onCommit={(loom) => set('loom', loom === '' ? null : loom)}
        />
      </td>
      <td className="doings">
        <LinkButton
          ref={adder}

          aria-label={`Split ${cable.tag}`}
          aria-expanded={isAdding}
          title="One end more: a Y cord"
          onClick={() => setAdding(!isAdding)}
        >
          Split
        </LinkButton>
        <LinkButton aria-label={`Unplug ${cable.tag}`} onClick={() => run(commands.disconnect(show, cable.id))}>
          Unplug
        </LinkButton>
      </td>
    </tr>
  );
}

/** The ends of one side; where there are several, each can be taken off. */
function Ends({
  cable,
  side,
  ends,
}: {
  readonly cable: Cable;
  readonly side: 'From' | 'To';
  readonly ends: readonly CableEnd[];
}) {
  const { show, run } = useShow();
  return ends.map((end, n) => {
    const name = `${side}${ends.length > 1 ? ` ${n + 1}` : ''} of ${cable.tag}`;
    return (
      <div key={end.index} className="cableend">
        <PlugSelect cable={cable} end={end} label={name} />
        {ends.length > 1 && (
          <LinkButton
            aria-label={`Take off ${name}`}
            title="Take this end off"
            onClick={() =>
              run(
                commands.setCable(
                  show,
                  cable.id,
                  'plugs',
                  cable.plugs.filter((_, i) => i !== end.index),
                ),
              )
            }
          >
            ×
          </LinkButton>
        )}
      </div>
    );
  });
}

/** How a cable joins the poles of its plugs, where there is a choice. */
function PolesSelect({ cable, ends }: { readonly cable: Cable; readonly ends: readonly CableEnd[] }) {
  const { show, run } = useShow();
  const choices = poleChoices(cable, ends);
  if (choices.length < 2) return null;
  return (
    <CellSelect
      label={`Poles of ${cable.tag}`}
      value={poleChoiceOf(cable, choices).id}
      choices={choices.map(({ id, label }) => ({ value: id, label: `wired ${label}` }))}
      onPick={(picked) =>
        run(commands.setCable(show, cable.id, 'poles', choices.find((choice) => choice.id === picked)?.poles))
      }
    />
  );
}

/** One end of a cable: its jack, and every free jack that this end could go into instead. */
function PlugSelect({
  cable,
  end: { index, plug, jack: here },
  label,
}: {
  readonly cable: Cable;
  readonly end: CableEnd;
  readonly label: string;
}) {
  const { show, run } = useShow();
  const value = `${plug.device}:${plug.jack}`;
  const own = { value, label: `${show.rig.devices[plug.device].name} ${here?.label ?? plug.jack}` };
  return (
    <CellSelect
      label={label}
      value={value}
      shownAs={own.label}
      choices={() => [
        own,
        ...choicesOf(
          freeJacks(show.rig, (jack) => here !== undefined && sameKind(jack, here) && isOut(jack) === isOut(here)),
        ),
      ]}
      onPick={(picked) =>
        run(
          commands.setCable(
            show,
            cable.id,
            'plugs',
            cable.plugs.map((plug, i) => (i === index ? plugOf(picked) : plug)),
          ),
        )
      }
    />
  );
}

/** Where one end more of a cable goes: any free jack of its kind. */
function NewEnd({ cable, onDone }: { readonly cable: Cable; readonly onDone: () => void }) {
  const { show, wiring, run } = useShow();
  const like = endsOf(wiring, cable).from[0].jack;
  const jacks = freeJacks(show.rig, (jack) => like !== undefined && sameKind(jack, like));
  return (
    <CellSelect
      bordered
      autoOpen
      label={`Another end of ${cable.tag}`}
      value=""
      placeholder={jacks.length === 0 ? 'No free jack fits' : 'Another end goes to …'}
      choices={choicesOf(jacks)}
      onPick={(picked) => run(commands.setCable(show, cable.id, 'plugs', [...cable.plugs, plugOf(picked)]))}
      onClose={onDone}
    />
  );
}

const choicesOf = (jacks: ReturnType<typeof freeJacks>) =>
  jacks.map(({ device, jack }) => ({ value: `${device.id}:${jack.id}`, label: `${device.name} ${jack.label}` }));

function plugOf(value: string) {
  const [device, jack] = value.split(':');
  return { device, jack };
}

function freeJacks(rig: Rig, fits: (jack: Jack) => boolean) {
  return buildWiring(rig).devices.flatMap((wired) =>
    wired.anatomy.jacks
      .filter((jack) => fits(jack) && !wired.plugged.has(jack.id))
      .map((jack) => ({ device: wired.device, jack })),
  );
}

/** Whether one kind of cable goes into both. */
const sameKind = (jack: Jack, like: Jack): boolean =>
  (jack.speaker ?? false) === (like.speaker ?? false) && kindOf(jack) === kindOf(like);
const kindOf = ({ kind }: Jack): string => kind.split('-')[0];
