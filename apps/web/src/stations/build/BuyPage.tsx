import {
  billOf,
  type BuyFacts,
  isDate,
  numberTyped,
  type PartRow,
  partsToBuy,
  type PartToBuy,
  rangeText,
  rangeTyped,
  setBuy,
  setPart,
  setShopping,
  shoppingOf,
  sparesOf,
  substitutesFor,
  why,
} from '@yunta/core';
import { useState } from 'react';
import { TextInput } from '@mantine/core';
import { useShow } from '../../api/rig.tsx';
import { DataTable } from '../../ui/DataTable.tsx';
import { InlineField } from '../../ui/InlineField.tsx';
import { LineForm } from '../../ui/LineForm.tsx';
import { LinkButton } from '../../ui/LinkButton.tsx';
import { numberShown, wholeNumber } from '../../ui/numbers.ts';
import { Why } from '../../ui/Why.tsx';

/** What the patch asks for and its spares, less what there is: what it costs, and by when it has to be ordered. */
export function BuyPage() {
  const { show, run, attempt } = useShow();
  const parts = partsToBuy(show.rig);
  const bill = billOf(show.rig);
  const { firstShow, budget } = shoppingOf(show.rig);
  const [typed, setTyped] = useState('');
  const add = () => {
    const name = typed.trim();
    if (name === '' || parts.some((part) => part.name === name)) return;
    if (run(setPart(show, name, { wanted: 1 }))) setTyped('');
  };
  return (
    <section aria-label="What to buy">
      <div className="sectionhead">
        <h2>Buy</h2>
        <span className="soft">
          <Why evidence={why.billTotal(bill, parts)} /> in all
          {bill.unpriced > 0 ? `, ${bill.unpriced} without a price` : ''}
        </span>
        {bill.overBudget && <b className="powerlow">over the budget</b>}
        <span className="tools buildtools">
          <SpareRules />
          <label className="buildseed">
            <span className="soft">first show</span>
            <InlineField
              look="boxed"
              label="Date of the first show"
              value={firstShow ?? ''}
              placeholder="2027-03-01"
              maxLength={10}
              onCommit={(date) =>
                date !== '' && !isDate(date)
                  ? `“${date}” is no date: write year-month-day, 2027-03-01.`
                  : attempt(setShopping(show, { firstShow: date === '' ? undefined : date }))
              }
            />
          </label>
          <label className="buildseed">
            <span className="soft">budget</span>
            <InlineField
              look="boxed"
              label="Budget"
              value={budget === undefined ? '' : numberShown(budget)}
              placeholder="—"
              onCommit={(text) => {
                const value = text === '' ? undefined : numberTyped(text);
                return text !== '' && !(value !== undefined && value >= 0 && value <= 10_000_000)
                  ? `“${text}” is no amount.`
                  : attempt(setShopping(show, { budget: value }));
              }}
            />
          </label>
        </span>
      </div>
      <div className="sheet">
        <LineForm does="Add" onAdd={add}>
          <TextInput
            aria-label="Add something to buy"
            placeholder="Something the patch does not ask for: strings, gaffer tape, a fuse"
            value={typed}
            maxLength={120}
            onChange={(event) => setTyped(event.currentTarget.value)}
            style={{ flex: 1 }}
          />
        </LineForm>
        <div className="scroll-x">
          <DataTable className="build">
            <thead>
              <tr>
                <th>Part</th>
                <th>Needed</th>
                <th>Spares</th>
                <th>There</th>
                <th>Buy</th>
                <th>Price of one</th>
                <th>Days to come</th>
                <th>Order by</th>
                <th>In the meantime</th>
                <th />
              </tr>
            </thead>
            <tbody>
              {parts.map((part) => (
                <PartLine key={part.name} part={part} substitutes={substitutesFor(show.rig, part, parts)} />
              ))}
            </tbody>
          </DataTable>
        </div>
      </div>
    </section>
  );
}

const spareKinds = [
  ['connector', 'connectors'],
  ['whole', 'leads'],
  ['metre', 'metres'],
] as const;

/** How many spares of each part of a kind; a part may have a number of its own. */
function SpareRules() {
  const { show, attempt } = useShow();
  const { spares } = shoppingOf(show.rig);
  return (
    <span className="buildseed" role="group" aria-label="Spares of each">
      <span className="soft">spares of each:</span>
      {spareKinds.map(([kind, label]) => (
        <label key={kind} className="buildseed">
          <span className="soft">{label}</span>
          <InlineField
            look="boxed"
            label={`Spares of all ${label}`}
            value={String(sparesOf(show.rig, kind))}
            maxLength={5}
            onCommit={(typed) => {
              const count = wholeNumber(typed, 0, 1_000);
              return count === undefined
                ? `“${typed}” will not do: write 0 to 1000.`
                : attempt(setShopping(show, { spares: { ...spares, [kind]: count } }));
            }}
          />
        </label>
      ))}
    </span>
  );
}

const today = (): string => new Date().toISOString().slice(0, 10);

function PartLine({ part, substitutes }: { readonly part: PartToBuy; readonly substitutes: readonly string[] }) {
  const { show, run, attempt } = useShow();
  const { name, row, needed, spares, have, buy, orderBy, by, each, days, device } = part;
  const set = (change: Partial<PartRow>) => attempt(setPart(show, name, change));
  const count = (field: 'have' | 'spares' | 'wanted', most: number) => (typed: string) => {
    if (typed === '') return set({ [field]: undefined });
    const value = wholeNumber(typed, 0, most);
    return value === undefined ? `“${typed}” will not do: write 0 to ${most}.` : set({ [field]: value });
  };
  // What a piece costs and how long it takes is kept with the piece.
  const setFacts = (change: BuyFacts): string | null =>
    device ? attempt(setBuy(show, device.id, { ...device.type.buy, ...change })) : set(change);
  const price = (typed: string): string | null => {
    const range = typed === '' ? [] : rangeTyped(typed);
    return range ? setFacts({ low: range[0], high: range[1] }) : `“${typed}” is no price: write 12, or 12–15.`;
  };
  return (
    <tr>
      <td title={by.join(', ')}>{name}</td>
      <td className="num">
        {by.length > 0 ? (
          needed
        ) : (
          <InlineField
            look="mono"
            label={`How many of ${name}`}
            value={String(needed)}
            onCommit={count('wanted', 100_000)}
          />
        )}
      </td>
      <td>
        <InlineField
          look="mono"
          label={`Spares of ${name}`}
          value={String(spares)}
          onCommit={count('spares', 10_000)}
        />
      </td>
      <td>
        <InlineField
          look="mono"
          label={`How many of ${name} there are`}
          value={row?.have === undefined ? '' : String(have)}
          placeholder="—"
          onCommit={count('have', 100_000)}
        />
      </td>
      <td className="num">
        <Why evidence={why.partBought(part)} />
      </td>
      <td>
        <InlineField
          look="mono"
          label={`Price of ${name}`}
          value={each ? rangeText(...each) : ''}
          placeholder="—"
          onCommit={price}
        />
      </td>
      <td>
        <InlineField
          look="mono"
          label={`Days until ${name} comes`}
          value={days === undefined ? '' : String(days)}
          placeholder="—"
          onCommit={(typed) => {
            const value = typed === '' ? undefined : wholeNumber(typed, 0, 1_000);
            return typed !== '' && value === undefined
              ? `“${typed}” will not do: write 0 to 1000.`
              : setFacts({ days: value });
          }}
        />
      </td>
      <td className="num">
        {orderBy ?? ''}
        {orderBy !== null && orderBy < today() && <b className="powerlow"> too late</b>}
      </td>
      <td>
        <InlineField
          label={`What could be used instead of ${name}`}
          value={row?.substitute ?? ''}
          placeholder={buy > 0 ? (substitutes.at(0) ?? '—') : '—'}
          suggestions={substitutes}
          onCommit={(substitute) => set({ substitute: substitute === '' ? undefined : substitute })}
        />
      </td>
      <td className="doings">
        {device && (
          <LinkButton
            aria-label={`${name} is there`}
            onClick={() => run(setBuy(show, device.id, { ...device.type.buy, isWanted: undefined }))}
          >
            It is there
          </LinkButton>
        )}
        {by.length === 0 && (
          <LinkButton
            aria-label={`Remove ${name}`}
            onClick={() =>
              run(
                setPart(show, name, {
                  have: undefined,
                  spares: undefined,
                  low: undefined,
                  high: undefined,
                  days: undefined,
                  substitute: undefined,
                  wanted: undefined,
                }),
              )
            }
          >
            Remove
          </LinkButton>
        )}
      </td>
    </tr>
  );
}
