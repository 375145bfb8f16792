import { Select } from '@mantine/core';
import { type Body, type Device, jacksOf, numberTyped, setBody, setBuy, sides } from '@yunta/core';
import { useShow } from '../../../api/rig.tsx';
import { Fold } from '../../../ui/Fold.tsx';
import { InlineField } from '../../../ui/InlineField.tsx';
import { LinkButton } from '../../../ui/LinkButton.tsx';
import { wholeNumber } from '../../../ui/numbers.ts';

const usual: Body = { from: 'measured', width: 70, depth: 120, height: 55 };
const sourceWords = { typical: 'typical', papers: 'its papers', measured: 'measured' } as const;

/** How large a piece is, what it weighs, and where its jacks are; a figure that is changed counts as measured. */
export function OutlineFacts({ device, isOpen = false }: { readonly device: Device; readonly isOpen?: boolean }) {
  const { show, run, attempt } = useShow();
  const { body, buy } = device.type;
  const price = (typed: string): string | null => {
    if (typed === '') return attempt(setBuy(show, device.id, undefined));
    const [low, high = low] = typed.split(/\s*[–—-]\s*/).map((text) => numberTyped(text));
    return low === undefined || high === undefined || low > high
      ? `“${typed}” is no price: write 12, or 12–15.`
      : attempt(setBuy(show, device.id, { ...buy, low, high }));
  };
  const write = (change: Partial<Body>) => {
    const { from, ...rest } = body ?? usual;
    const all = Object.entries({ ...rest, ...change }).filter(([, value]) => value !== undefined);
    return setBody(show, device.id, {
      ...(Object.fromEntries(all) as unknown as Body),
      from: change.from ?? (from === 'typical' ? 'measured' : from),
    });
  };
  const figure =
    (field: 'width' | 'depth' | 'height' | 'grams', most: number, unit: string) =>
    (typed: string): string | null => {
      if (field === 'grams' && typed === '') return attempt(write({ grams: undefined }));
      const value = wholeNumber(typed, field === 'grams' ? 0 : 1, most);
      return value === undefined
        ? `“${typed}” will not do: write ${field === 'grams' ? 0 : 1} to ${most} ${unit}.`
        : attempt(write({ [field]: value }));
    };
  return (
    <Fold title="Outline and price" open={isOpen}>
      <div className="powerrow">
        <span className="soft">Costs</span>
        <InlineField
          look="boxed"
          label="Price"
          value={
            buy?.low === undefined
              ? ''
              : [buy.low, buy.high ?? buy.low].filter((each, i, all) => i === 0 || each !== all[0]).join('–')
          }
          placeholder="12, or 12–15"
          onCommit={price}
        />
      </div>
      {!body ? (
        <LinkButton onClick={() => run(setBody(show, device.id, usual))}>Say how large it is</LinkButton>
      ) : (
        <div className="powerfacts">
          <Select
            label="Where these are from"
            allowDeselect={false}
            value={body.from}
            data={(['typical', 'papers', 'measured'] as const).map((from) => ({
              value: from,
              label: sourceWords[from],
            }))}
            onChange={(from) => from && run(write({ from: from as Body['from'] }))}
          />
          {(
            [
              ['width', 'Wide', 3_000, 'mm'],
              ['depth', 'Deep', 3_000, 'mm'],
              ['height', 'High', 3_000, 'mm'],
              ['grams', 'Weighs', 500_000, 'g'],
            ] as const
          ).map(([field, label, most, unit]) => (
            <div className="powerrow" key={field}>
              <span className="soft">{label}</span>
              <InlineField
                look="boxed"
                label={`${label}, ${unit}`}
                value={body[field] === undefined ? '' : String(body[field])}
                unit={unit}
                placeholder="—"
                onCommit={figure(field, most, unit)}
              />
            </div>
          ))}
          <Select
            label="Its jacks"
            allowDeselect={false}
            value={body.jacks ?? 'sides'}
            data={[
              { value: 'sides', label: 'in right, out left, the rest at the back' },
              { value: 'back', label: 'all at the back' },
              { value: 'top', label: 'all on top' },
            ]}
            onChange={(jacks) => jacks && run(write({ jacks: jacks === 'sides' ? undefined : (jacks as 'back') }))}
          />
          <Fold title="Each jack by itself">
            {jacksOf(device.type).map((jack) => (
              <Select
                key={jack.id}
                size="xs"
                label={jack.label}
                allowDeselect={false}
                value={body.sides?.[jack.id] ?? 'usual'}
                data={[{ value: 'usual', label: 'as above' }, ...sides.map((side) => ({ value: side, label: side }))]}
                onChange={(side) => {
                  const { [jack.id]: _, ...others } = body.sides ?? {};
                  const next = side === 'usual' || !side ? others : { ...others, [jack.id]: side };
                  run(write({ sides: Object.keys(next).length > 0 ? (next as Body['sides']) : undefined }));
                }}
              />
            ))}
          </Fold>
        </div>
      )}
    </Fold>
  );
}
