import { Checkbox, Select } from '@mantine/core';
import {
  bandOf,
  type Body,
  type Device,
  type Edge,
  edges,
  type Jack,
  jackChoices,
  jacksOf,
  plugFor,
  rangeText,
  rangeTyped,
  said,
  setBody,
  setBuy,
  sides,
} from '@yunta/core';
import { useShow } from '../../../api/rig.tsx';
import { Fold } from '../../../ui/Fold.tsx';
import { InlineField } from '../../../ui/InlineField.tsx';
import { LinkButton } from '../../../ui/LinkButton.tsx';
import { wholeNumber } from '../../../ui/numbers.ts';

const usual: Body = { from: 'measured', width: 70, depth: 120, height: 55 };
const sourceWords = { typical: 'typical', papers: 'its papers', measured: 'measured' } as const;

/** What a jack may be said to take; first what such a jack usually takes. */
function takesChoices({ type }: Device, jack: Jack, told: string | undefined) {
  const usual = plugFor({ ...type, body: undefined }, { kind: jack.speaker ? 'speaker' : 'signal' }, jack);
  const others = [...new Set([...(told === undefined ? [] : [told]), ...jackChoices(jack)])];
  return [
    { value: 'usual', label: usual },
    ...others.filter((name) => name !== usual || name === told).map((name) => ({ value: name, label: name })),
  ];
}

/** How large a piece is, what it weighs, where its jacks are; a size or weight that is changed counts as measured. */
export function OutlineFacts({ device, isOpen = false }: { readonly device: Device; readonly isOpen?: boolean }) {
  const { show, run, attempt } = useShow();
  const { body, buy } = device.type;
  const band = bandOf(buy);
  const price = (typed: string): string | null => {
    const range = typed === '' ? [] : rangeTyped(typed);
    return range
      ? attempt(setBuy(show, device.id, { ...buy, low: range[0], high: range[1] }))
      : `“${typed}” is no price: write 12, or 12–15.`;
  };
  const write = (change: Partial<Body>) => {
    const { from, ...rest } = body ?? usual;
    // Where jacks and covers are says nothing of how large it is.
    const isSize = (['width', 'depth', 'height', 'grams'] as const).some((field) => field in change);
    return setBody(
      show,
      device.id,
      said({ ...rest, from: isSize && from === 'typical' ? 'measured' : from, ...change }),
    );
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
          value={band ? rangeText(...band) : ''}
          placeholder="12, or 12–15"
          onCommit={price}
        />
      </div>
      <div className="powerrow">
        <span className="soft">Comes in</span>
        <InlineField
          look="boxed"
          label="Days to come"
          value={buy?.days === undefined ? '' : String(buy.days)}
          unit="days"
          placeholder="—"
          onCommit={(typed) => {
            const days = typed === '' ? undefined : wholeNumber(typed, 0, 1_000);
            return typed !== '' && days === undefined
              ? `“${typed}” will not do: write 0 to 1000 days.`
              : attempt(setBuy(show, device.id, { ...buy, days }));
          }}
        />
      </div>
      <Checkbox
        my={6}
        label="Still to be bought"
        checked={buy?.isWanted === true}
        onChange={(event) =>
          run(setBuy(show, device.id, { ...buy, isWanted: event.currentTarget.checked || undefined }))
        }
      />
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
          <div className="powerrow">
            <span className="soft">Cover</span>
            <Select
              size="xs"
              aria-label="Side of a cover that has to be opened"
              allowDeselect={false}
              value={body.cover?.side ?? 'none'}
              data={[
                { value: 'none', label: 'none to open' },
                ...edges.map((edge) => ({ value: edge, label: `at the ${edge}` })),
              ]}
              onChange={(side) =>
                run(
                  write({
                    cover: !side || side === 'none' ? undefined : { side: side as Edge, mm: body.cover?.mm ?? 50 },
                  }),
                )
              }
            />
            {body.cover && (
              <InlineField
                look="boxed"
                label="Room for the cover, mm"
                value={String(body.cover.mm)}
                unit="mm"
                onCommit={(typed) => {
                  const mm = wholeNumber(typed, 1, 1_000);
                  return mm === undefined
                    ? `“${typed}” will not do: write 1 to 1000 mm.`
                    : attempt(write({ cover: { side: body.cover!.side, mm } }));
                }}
              />
            )}
          </div>
          <Fold title="Each jack by itself">
            {jacksOf(device.type).map((jack) => (
              <div key={jack.id} className="outlinejack" role="group" aria-label={jack.label}>
                <span className="soft">{jack.label}</span>
                <Select
                  size="xs"
                  aria-label={`Side of ${jack.label}`}
                  allowDeselect={false}
                  value={body.sides?.[jack.id] ?? 'usual'}
                  data={[{ value: 'usual', label: 'as above' }, ...sides.map((side) => ({ value: side, label: side }))]}
                  onChange={(side) => {
                    const { [jack.id]: _, ...others } = body.sides ?? {};
                    const next = side === 'usual' || !side ? others : { ...others, [jack.id]: side };
                    run(write({ sides: Object.keys(next).length > 0 ? (next as Body['sides']) : undefined }));
                  }}
                />
                <Select
                  size="xs"
                  aria-label={`What ${jack.label} takes`}
                  allowDeselect={false}
                  value={body.takes?.[jack.id] ?? 'usual'}
                  data={takesChoices(device, jack, body.takes?.[jack.id])}
                  onChange={(plug) => {
                    const { [jack.id]: _, ...others } = body.takes ?? {};
                    const next = plug === 'usual' || !plug ? others : { ...others, [jack.id]: plug };
                    run(write({ takes: Object.keys(next).length > 0 ? next : undefined }));
                  }}
                />
              </div>
            ))}
          </Fold>
        </div>
      )}
    </Fold>
  );
}
