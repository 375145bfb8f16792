import { Checkbox, TextInput } from '@mantine/core';
import {
  type FilledCase,
  filledCases,
  freshId,
  kilograms,
  numberTyped,
  type PackCase,
  packed,
  type Packed,
  packingOf,
  type PackItem,
  putInCase,
  said,
  setPacking,
  tagLines,
  travels,
  usualLimits,
  why,
} from '@yunta/core';
import { useState } from 'react';
import { useParams } from 'react-router';
import { useShow } from '../../api/rig.tsx';
import { type Ticks, useTicks } from '../../api/ticks.ts';
import { CellSelect } from '../../ui/CellSelect.tsx';
import { DataTable } from '../../ui/DataTable.tsx';
import { InlineField } from '../../ui/InlineField.tsx';
import { LineForm } from '../../ui/LineForm.tsx';
import { LinkButton } from '../../ui/LinkButton.tsx';
import { Notice } from '../../ui/Notice.tsx';
import { numberShown, wholeNumber } from '../../ui/numbers.ts';
import { Why } from '../../ui/Why.tsx';
import { sizeTyped } from './size-typed.ts';

const travelWords = { ground: 'on the ground', hold: 'in the hold', cabin: 'in the cabin' } as const;

/** Cases with what is in them and what that weighs; everything with its case, ticked as it is packed. */
export function PackPage() {
  const { id = '' } = useParams();
  const { show, run } = useShow();
  const ticks = useTicks(id);
  const cases = filledCases(show.rig);
  const { items = [] } = packingOf(show.rig);
  const all = packed(show.rig);
  const [typed, setTyped] = useState('');
  const missing = all.filter((one) => one.case === undefined || !ticks.said.has(`pack/${one.id}`)).length;
  const addCase = () => {
    const taken = Object.fromEntries(cases.map(({ case: each }) => [each.id, true]));
    run(
      setPacking(show, {
        cases: [
          ...cases.map(({ case: each }) => each),
          { id: freshId('case', taken, 'case'), name: `Case ${cases.length + 1}` },
        ],
      }),
    );
  };
  const addItem = () => {
    const name = typed.trim();
    if (name === '') return;
    const taken = Object.fromEntries(items.map((item) => [item.id, true]));
    if (run(setPacking(show, { items: [...items, { id: freshId(name, taken, 'item'), name, count: 1 }] })))
      setTyped('');
  };
  return (
    <section aria-label="Packing">
      {ticks.error && <Notice tone="refusal">{ticks.error}</Notice>}
      <div className="sectionhead">
        <h2>Cases</h2>
        <span className="soft">
          {cases.length === 0
            ? 'none yet'
            : missing === 0
              ? 'all is packed'
              : `${missing} of ${all.length} still missing`}
        </span>
        <LinkButton onClick={addCase}>Add a case</LinkButton>
        <span className="tools buildtools">
          <Limit label="one hand lifts" field="oneHand" />
          <Limit label="two hands" field="twoHands" />
          <Limit label="two people" field="twoPeople" />
        </span>
      </div>
      {cases.length > 0 && (
        <div className="sheet scroll-x">
          <DataTable className="build">
            <thead>
              <tr>
                <th>Case</th>
                <th>Outside</th>
                <th>Empty</th>
                <th>Weighs</th>
                <th>Lifted by</th>
                <th>Travels</th>
                <th>Carrier allows</th>
                <th>Tape</th>
                <th>Packer</th>
                <th />
              </tr>
            </thead>
            <tbody>
              {cases.map((filled) => (
                <CaseRow key={filled.case.id} filled={filled} />
              ))}
            </tbody>
          </DataTable>
        </div>
      )}
      <div className="sectionhead">
        <h2>What is packed</h2>
        <span className="soft">tick it as it goes in</span>
      </div>
      <div className="sheet">
        <LineForm does="Add" onAdd={addItem}>
          <TextInput
            aria-label="Add something to pack"
            placeholder="What travels besides the pieces: strings, power bank, spare cables"
            value={typed}
            maxLength={80}
            onChange={(event) => setTyped(event.currentTarget.value)}
            style={{ flex: 1 }}
          />
        </LineForm>
        <div className="scroll-x">
          <DataTable className="build">
            <thead>
              <tr>
                <th style={{ width: 34 }} />
                <th>What</th>
                <th>How many</th>
                <th>Weighs</th>
                <th style={{ width: 190 }}>Case</th>
                <th>Battery</th>
                <th />
              </tr>
            </thead>
            <tbody>
              {all.map((one) => (
                <PackedRow key={one.id} one={one} cases={cases} ticks={ticks} />
              ))}
            </tbody>
          </DataTable>
        </div>
      </div>
      <p className="soft powercaution">
        Two people lift above about 23 kg, a best case that falls with reach and height. Spare batteries and power
        banks, a board’s battery supply too, fly in the cabin only, terminals protected: check the airline.
      </p>
    </section>
  );
}

/** What may be lifted, in kg; what is usual where nobody has said. */
function Limit({ label, field }: { readonly label: string; readonly field: keyof typeof usualLimits }) {
  const { show, attempt } = useShow();
  const value = packingOf(show.rig)[field];
  return (
    <label className="buildseed">
      <span className="soft">{label}</span>
      <InlineField
        look="boxed"
        label={`What ${label === 'one hand lifts' ? 'one hand' : label} may lift`}
        value={numberShown(value ?? usualLimits[field])}
        unit="kg"
        onCommit={(typed) => {
          const kg = typed === '' ? undefined : numberTyped(typed);
          return typed !== '' && !(kg !== undefined && kg >= 0.5 && kg <= 100)
            ? `“${typed}” will not do: write 0.5 to 100 kg.`
            : attempt(setPacking(show, { [field]: kg }));
        }}
      />
    </label>
  );
}

function CaseRow({ filled }: { readonly filled: FilledCase }) {
  const { show, run, attempt } = useShow();
  const { case: each, lift } = filled;
  const cases = packingOf(show.rig).cases ?? [];
  const change = (changed: Partial<PackCase>) =>
    setPacking(show, {
      cases: cases.map((other) => {
        if (other.id !== each.id) return other;
        const { tape, packer, ...others } = { ...other, ...changed };
        return said<PackCase>({ ...others, tape: tape || undefined, packer: packer || undefined });
      }),
    });
  const heavy = lift === 'two people' || lift === 'more than two people';
  return (
    <tr title={tagLines(show.rig, filled).join(' · ')}>
      <td>
        <InlineField
          label={`Name of ${each.name}`}
          value={each.name}
          maxLength={80}
          onCommit={(name) => (name === '' ? 'A case needs a name.' : attempt(change({ name })))}
        />
      </td>
      <td>
        <InlineField
          look="mono"
          label={`Outer size of ${each.name}`}
          value={each.size ? each.size.join(' × ') : ''}
          unit="mm"
          placeholder="—"
          onCommit={(typed) => {
            const size = typed === '' ? undefined : sizeTyped(typed);
            return typed !== '' && size === undefined
              ? `“${typed}” is no size: write width, depth and height in mm, 600 × 400 × 300.`
              : attempt(change({ size }));
          }}
        />
      </td>
      <td>
        <InlineField
          look="mono"
          label={`Empty weight of ${each.name}`}
          value={each.grams === undefined ? '' : String(each.grams)}
          unit="g"
          placeholder="—"
          onCommit={(typed) => {
            if (typed === '') return attempt(change({ grams: undefined }));
            const value = wholeNumber(typed, 0, 200_000);
            return value === undefined
              ? `“${typed}” is no weight: write 0 to 200000 g.`
              : attempt(change({ grams: value }));
          }}
        />
      </td>
      <td className="num">
        <Why dense evidence={why.caseWeight(filled)} />
      </td>
      <td className="nowrap">{heavy ? <b className="powerlow">{lift}</b> : lift}</td>
      <td>
        <CellSelect
          label={`How ${each.name} travels`}
          value={each.travels ?? 'ground'}
          choices={travels.map((value) => ({ value, label: travelWords[value] }))}
          onPick={(picked) => run(change({ travels: picked === 'ground' ? undefined : (picked as 'hold') }))}
        />
      </td>
      <td>
        <InlineField
          look="mono"
          label={`What the carrier of ${each.name} allows`}
          value={each.mostKg === undefined ? '' : String(each.mostKg)}
          unit="kg"
          placeholder="—"
          onCommit={(typed) => {
            if (typed === '') return attempt(change({ mostKg: undefined }));
            const value = wholeNumber(typed, 1, 500);
            return value === undefined
              ? `“${typed}” will not do: write 1 to 500 kg.`
              : attempt(change({ mostKg: value }));
          }}
        />
      </td>
      <td>
        <InlineField
          label={`Tape of ${each.name}`}
          value={each.tape ?? ''}
          placeholder="—"
          maxLength={30}
          suggestions={['white', 'yellow', 'red', 'green', 'blue', 'black']}
          onCommit={(tape) => attempt(change({ tape }))}
        />
      </td>
      <td>
        <InlineField
          label={`Packer of ${each.name}`}
          value={each.packer ?? ''}
          placeholder="—"
          maxLength={60}
          onCommit={(packer) => attempt(change({ packer }))}
        />
      </td>
      <td className="doings">
        <LinkButton
          aria-label={`Remove ${each.name}`}
          onClick={() => run(setPacking(show, { cases: cases.filter(({ id }) => id !== each.id) }))}
        >
          Remove
        </LinkButton>
      </td>
    </tr>
  );
}

function PackedRow({
  one,
  cases,
  ticks,
}: {
  readonly one: Packed;
  readonly cases: readonly FilledCase[];
  readonly ticks: Ticks;
}) {
  const { show, run, attempt } = useShow();
  const { items = [] } = packingOf(show.rig);
  const item = one.device ? undefined : items.find(({ id }) => one.id === `item/${id}`);
  const line = `pack/${one.id}`;
  const words = `${one.count} ${one.name} in ${one.case ?? 'none'}`.slice(0, 1000);
  const isIn = ticks.said.get(line)?.said === words;
  const change = (changed: Partial<PackItem>) =>
    setPacking(show, {
      items: items.map((other) => (other === item ? said<PackItem>({ ...other, ...changed }) : other)),
    });
  const figure = (field: 'count' | 'grams', low: number, most: number) => (typed: string) => {
    if (typed === '' && field === 'grams') return attempt(change({ grams: undefined }));
    const value = wholeNumber(typed, low, most);
    return value === undefined
      ? `“${typed}” will not do: write ${low} to ${most}.`
      : attempt(change({ [field]: value }));
  };
  return (
    <tr>
      <td>
        <Checkbox
          aria-label={`${one.name} is packed`}
          checked={isIn}
          disabled={one.case === undefined}
          onChange={(event) => ticks.set(line, words, event.currentTarget.checked)}
        />
      </td>
      <td>{one.name}</td>
      <td>
        {item && (
          <InlineField
            look="mono"
            label={`How many of ${one.name}`}
            value={String(item.count)}
            onCommit={figure('count', 1, 1_000)}
          />
        )}
      </td>
      <td>
        {item ? (
          <InlineField
            look="mono"
            label={`Weight of one ${one.name}`}
            value={item.grams === undefined ? '' : String(item.grams)}
            unit="g"
            placeholder="—"
            onCommit={figure('grams', 0, 200_000)}
          />
        ) : one.grams === null ? (
          <span className="soft">nobody has said</span>
        ) : (
          <span className="num">{kilograms(one.grams)}</span>
        )}
      </td>
      <td>
        <CellSelect
          label={`Case of ${one.name}`}
          value={one.case ?? ''}
          placeholder="in none"
          choices={[
            ...cases.map(({ case: each }) => ({ value: each.id, label: each.name })),
            { value: '-', label: 'in none' },
          ]}
          onPick={(picked) => {
            const into = picked === '-' ? undefined : picked;
            run(one.device ? putInCase(show, one.device.id, into) : change({ case: into }));
          }}
        />
      </td>
      <td>
        {item ? (
          <InlineField
            look="mono"
            label={`What a battery of ${one.name} holds`}
            value={item.wh === undefined ? '' : String(item.wh)}
            unit="Wh"
            placeholder="none"
            onCommit={(typed) => {
              if (typed === '') return attempt(change({ wh: undefined }));
              const value = wholeNumber(typed, 1, 5_000);
              return value === undefined
                ? `“${typed}” will not do: write 1 to 5000 Wh.`
                : attempt(change({ wh: value }));
            }}
          />
        ) : (
          one.batteries.length > 0 && <span className="num">{one.batteries[0]} Wh</span>
        )}
      </td>
      <td className="doings">
        {item && (
          <LinkButton
            aria-label={`Remove ${one.name}`}
            onClick={() => run(setPacking(show, { items: items.filter((other) => other !== item) }))}
          >
            Remove
          </LinkButton>
        )}
      </td>
    </tr>
  );
}
