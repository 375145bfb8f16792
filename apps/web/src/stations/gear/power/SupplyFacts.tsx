import { choiceWords, numberTyped, type PowerOutput, type PowerSupplyFacts } from '@yunta/core';
import { CellSelect } from '../../../ui/CellSelect.tsx';
import { InlineField } from '../../../ui/InlineField.tsx';
import { LinkButton } from '../../../ui/LinkButton.tsx';
import { choicesTyped, limitTyped, limitWords, outputsTyped, outputsWords } from './power-typed.ts';

interface Props {
  readonly supply: PowerSupplyFacts;
  readonly onWrite: (supply: PowerSupplyFacts) => string | null;
}

/** The outputs of a supply, what limits them together, which may be joined, and what it holds where it is a battery. */
export function SupplyFacts(props: Props) {
  return (
    <div className="powerrows">
      <OutputList {...props} />
      <LimitList {...props} />
      <JoinList {...props} />
      <Held {...props} />
    </div>
  );
}

const kinds = [
  { value: 'dc -', label: 'minus centre' },
  { value: 'dc +', label: 'plus centre' },
  { value: 'ac -', label: 'AC' },
];

function OutputList({ supply, onWrite }: Props) {
  const { outputs } = supply;
  const change = (id: string, changed: Partial<PowerOutput>) =>
    onWrite({
      ...supply,
      outputs: outputs.map((output) => {
        if (output.id !== id) return output;
        const { rail, ...rest } = { ...output, ...changed };
        return rail === undefined ? rest : { ...rest, rail };
      }),
    });
  const add = () => {
    const last = outputs.at(-1);
    const number = Array.from({ length: outputs.length + 1 }, (_, i) => i + 1).find(
      (n) => !outputs.some(({ id }) => id === `dc-${n}`),
    )!;
    onWrite({
      ...supply,
      outputs: [
        ...outputs,
        {
          ...(last ?? { choices: [{ volts: 9, ma: 100 }], kind: 'dc', centre: '-', plug: 'barrel 2.1 mm' }),
          id: `dc-${number}`,
          label: `Out ${number}`,
        },
      ],
    });
  };
  const removed = (id: string) => {
    const left = (ids: readonly string[]) => ids.filter((each) => each !== id);
    const limits = supply.limits
      ?.map((limit) => ({ ...limit, outputs: left(limit.outputs) }))
      .filter((limit) => limit.outputs.length > 0);
    return onWrite({
      ...supply,
      outputs: outputs.filter((output) => output.id !== id),
      ...(limits ? { limits } : {}),
      ...(supply.joins ? { joins: supply.joins.filter((join) => !join.outputs.includes(id)) } : {}),
    });
  };
  return (
    <>
      {outputs.map((output) => (
        <div key={output.id} className="poweroutput" role="group" aria-label={output.label}>
          <InlineField
            label={`Name of ${output.label}`}
            value={output.label}
            maxLength={60}
            onCommit={(label) => (label === '' ? 'An output needs a name.' : change(output.id, { label }))}
          />
          <InlineField
            look="boxed"
            label={`What ${output.label} gives`}
            value={output.choices.map(choiceWords).join(' or ')}
            onCommit={(typed) => {
              const choices = choicesTyped(typed);
              return choices
                ? change(output.id, { choices })
                : `“${typed}” does not say what it gives: write 9 V 500 mA, or 9 V 500 mA or 12 V 400 mA.`;
            }}
          />
          <CellSelect
            bordered
            label={`Polarity of ${output.label}`}
            value={`${output.kind} ${output.kind === 'ac' ? '-' : output.centre}`}
            choices={kinds}
            onPick={(picked) => {
              const [kind, centre] = picked.split(' ') as [PowerOutput['kind'], PowerOutput['centre']];
              change(output.id, { kind, centre });
            }}
          />
          <InlineField
            look="boxed"
            label={`Plug of ${output.label}`}
            value={output.plug}
            maxLength={30}
            onCommit={(plug) => (plug === '' ? 'It has some plug: write which.' : change(output.id, { plug }))}
          />
          <InlineField
            look="boxed"
            label={`Rail of ${output.label}`}
            value={output.rail ?? ''}
            placeholder="isolated"
            maxLength={40}
            onCommit={(rail) => change(output.id, { rail: rail === '' ? undefined : rail })}
          />
          <LinkButton
            aria-label={`Remove ${output.label}`}
            disabled={outputs.length === 1}
            onClick={() => removed(output.id)}
          >
            Remove
          </LinkButton>
        </div>
      ))}
      <LinkButton onClick={add}>Add an output</LinkButton>
    </>
  );
}

function LimitList({ supply, onWrite }: Props) {
  const { outputs, limits = [] } = supply;
  const write = (next: NonNullable<PowerSupplyFacts['limits']>) => onWrite({ ...supply, limits: next });
  const change = (at: number, changed: Partial<(typeof limits)[number]>) =>
    write(limits.map((limit, i) => (i === at ? { ...limit, ...changed } : limit)));
  return (
    <>
      {limits.map((limit, i) => (
        <div key={i} className="powerrow" role="group" aria-label={`Limit ${i + 1}`}>
          <InlineField
            look="boxed"
            label={`Outputs of limit ${i + 1}`}
            value={outputsWords(outputs, limit.outputs)}
            onCommit={(typed) => {
              const ids = outputsTyped(outputs, typed);
              return ids ? change(i, { outputs: ids }) : `“${typed}” names no outputs: write 1, 2 or all.`;
            }}
          />
          <InlineField
            look="boxed"
            label={`Most of limit ${i + 1}`}
            value={limitWords(limit)}
            onCommit={(typed) => {
              const most = limitTyped(typed);
              return most
                ? write(limits.map((each, k) => (k === i ? { outputs: each.outputs, ...most } : each)))
                : `“${typed}” is no limit: write 1500 mA or 18 VA.`;
            }}
          />
          <LinkButton aria-label={`Remove limit ${i + 1}`} onClick={() => write(limits.filter((_, k) => k !== i))}>
            Remove
          </LinkButton>
        </div>
      ))}
      <LinkButton onClick={() => write([...limits, { outputs: outputs.map(({ id }) => id), ma: 1_000 }])}>
        Add a limit
      </LinkButton>
    </>
  );
}

function JoinList({ supply, onWrite }: Props) {
  const { outputs, joins = [] } = supply;
  const write = (next: NonNullable<PowerSupplyFacts['joins']>) => onWrite({ ...supply, joins: next });
  const free = outputs.filter(({ id }) => !joins.some((join) => join.outputs.includes(id)));
  return (
    <>
      {joins.map((join, i) => (
        <div key={i} className="powerrow" role="group" aria-label={`Join ${i + 1}`}>
          <InlineField
            look="boxed"
            label={`Outputs of join ${i + 1}`}
            value={outputsWords(outputs, join.outputs)}
            onCommit={(typed) => {
              const ids = outputsTyped(outputs, typed);
              return ids?.length === 2
                ? write(joins.map((each, k) => (k === i ? { ...each, outputs: ids } : each)))
                : `“${typed}” does not name two outputs: write 1, 2.`;
            }}
          />
          <CellSelect
            bordered
            label={`How join ${i + 1} joins`}
            value={join.how}
            choices={[
              { value: 'series', label: 'in series: volts add' },
              { value: 'parallel', label: 'in parallel: mA add' },
            ]}
            onPick={(how) => write(joins.map((each, k) => (k === i ? { ...each, how: how as 'series' } : each)))}
          />
          <LinkButton aria-label={`Remove join ${i + 1}`} onClick={() => write(joins.filter((_, k) => k !== i))}>
            Remove
          </LinkButton>
        </div>
      ))}
      {free.length >= 2 && (
        <LinkButton
          title="Only where the supply’s own papers say so"
          onClick={() => write([...joins, { outputs: [free[0].id, free[1].id], how: 'series' }])}
        >
          Add outputs that may be joined
        </LinkButton>
      )}
    </>
  );
}

function Held({ supply, onWrite }: Props) {
  const { battery, ...rest } = supply;
  return (
    <div className="powerrow">
      <span className="soft">Holds</span>
      <InlineField
        look="boxed"
        label="What it holds, charged"
        value={battery ? String(battery.wh) : ''}
        unit="Wh"
        placeholder="no battery"
        onCommit={(typed) => {
          if (typed === '') return onWrite(rest);
          const wh = numberTyped(typed);
          return wh === undefined || wh < 1 || wh > 5_000
            ? `“${typed}” will not do: write 1 to 5000 Wh.`
            : onWrite({ ...rest, battery: { ...battery, wh } });
        }}
      />
      {battery && (
        <InlineField
          look="boxed"
          label="How much of it comes out"
          value={String(battery.efficiency ?? 100)}
          unit="%"
          onCommit={(typed) => {
            const efficiency = numberTyped(typed);
            return efficiency === undefined || !Number.isInteger(efficiency) || efficiency < 10 || efficiency > 100
              ? `“${typed}” will not do: write 10 to 100 %.`
              : onWrite({ ...rest, battery: { ...battery, efficiency } });
          }}
        />
      )}
    </div>
  );
}
