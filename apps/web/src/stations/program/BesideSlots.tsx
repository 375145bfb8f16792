import { NumberInput } from '@mantine/core';
import { commands, type Device, listActions, type Show, type Slot, slotPlace, slotsOfController } from '@yunta/core';
import { useState } from 'react';
import { useShow } from '../../api/rig.tsx';
import { LineForm } from '../../ui/LineForm.tsx';
import { ActionForm } from './ActionForm.tsx';
import { LinkButton } from '../../ui/LinkButton.tsx';
import { DataTable } from '../../ui/DataTable.tsx';
import { CellSelect } from '../../ui/CellSelect.tsx';

/**
 * What a controller does beside its slots' presses: when the power comes, when a momentary switch goes down and up,
 * when a message calls a slot.
 */
export function BesideSlots({ controller }: { readonly controller: Device }) {
  const { show, run, wiring } = useShow();
  const { anatomy } = wiring.device.get(controller.id)!;
  const slots = slotsOfController(show.rig, controller.id);
  const isCallable = anatomy.jacks.some((jack) => jack.kind === 'midi-in');
  const { momentaries } = anatomy.controller!;
  return (
    <>
      <div className="sectionhead">
        <h2>Power-up, momentary switches, calls</h2>
        <span className="soft">
          what {controller.name} does by itself, at a momentary switch, and when it is called
        </span>
      </div>
      <DataTable className="sheet beside" aria-label={`What ${controller.name} does beside its slots`}>
        <tbody>
          <tr>
            <th scope="row">At power-up</th>
            <td>
              fires{' '}
              <CellSelect
                bordered
                label="Slot fired at power-up"
                value={controller.powerUpSlot ?? ''}
                choices={[{ value: '', label: 'nothing' }, ...slotChoices(show, slots)]}
                onPick={(slot) =>
                  run(commands.setDevice(show, controller.id, 'powerUpSlot', slot === '' ? undefined : (slot as never)))
                }
              />
            </td>
          </tr>
          {momentaries.map(({ id, label }) => (
            <Momentary key={id} controller={controller} id={id} label={label} />
          ))}
          {momentaries.length === 0 && (
            <tr>
              <th scope="row">Momentary switches</th>
              <td className="soft">none; how many there are is said on Gear</td>
            </tr>
          )}
          {isCallable && <Calls controller={controller} slots={slots} />}
        </tbody>
      </DataTable>
    </>
  );
}

const slotName = ({ rig }: Show, slot: Slot): string =>
  slotPlace(slot) + (slot.sound === null ? '' : `: ${rig.sounds[slot.sound].name}`);

const slotChoices = (show: Show, slots: readonly Slot[]) =>
  slots.map((slot) => ({ value: slot.id as string, label: slotName(show, slot) }));

const moments = { press: 'pressed', release: 'released' } as const;

function Momentary({
  controller,
  id,
  label,
}: {
  readonly controller: Device;
  readonly id: string;
  readonly label: string;
}) {
  const { show, run, wiring } = useShow();
  return (['press', 'release'] as const).map((when) => {
    const actions = controller.momentaries[id]?.[when] ?? [];
    const name = `${label}, ${moments[when]}`;
    const set = (next: typeof actions) => run(commands.setMomentary(show, controller.id, id, when, next));
    return (
      <tr key={when}>
        <th scope="row">{name}</th>
        <td>
          <ul className="bare">
            {listActions(wiring, controller.id, actions).map((listAction, i) => (
              <li key={i}>
                {listAction.hex !== '' && <span className="mono">{listAction.hex} </span>}
                {listAction.words}{' '}
                <LinkButton
                  aria-label={`Remove from ${name}: ${listAction.words}`}
                  onClick={() => set(actions.filter((_, n) => n !== i))}
                >
                  ×
                </LinkButton>
              </li>
            ))}
          </ul>
          <ActionForm
            label={`Add an action: ${name}`}
            controller={wiring.device.get(controller.id)!}
            of="momentary"
            onAdd={(action) => set([...actions, action])}
          />
        </td>
      </tr>
    );
  });
}

/** Program changes that press a slot from outside. */
function Calls({ controller, slots }: { readonly controller: Device; readonly slots: readonly Slot[] }) {
  const { show, run } = useShow();
  const [program, setProgram] = useState<number | string>('');
  const [reason, setReason] = useState<string | null>(null);
  const [slot, setSlot] = useState(slots[0]?.id ?? '');
  const { calls } = controller;
  const channel = calls?.channel ?? 1;
  const set = (programs: Readonly<Record<string, string>>, on = channel) =>
    run(
      commands.setDevice(
        show,
        controller.id,
        'calls',
        Object.keys(programs).length === 0 ? undefined : { channel: on, programs },
      ),
    );
  const add = () => {
    const chosen = slots.find((item) => item.id === slot) ?? slots[0];
    if (!chosen) return;
    if (typeof program !== 'number' || program < 0 || program > 127)
      return setReason('A program is 0 to 127, as it is sent.');
    setReason(null);
    if (set({ ...calls?.programs, [String(program)]: chosen.id })) setProgram('');
  };
  return (
    <tr>
      <th scope="row">Called by program change</th>
      <td>
        {calls && (
          <>
            on channel{' '}
            <CellSelect
              bordered
              label="Channel that calls come on"
              value={String(channel)}
              choices={Array.from({ length: 16 }, (_, i) => ({ value: String(i + 1), label: String(i + 1) }))}
              onPick={(picked) => set(calls.programs, Number(picked))}
            />
          </>
        )}
        <ul className="bare">
          {Object.entries(calls?.programs ?? {}).map(([number, called]) => (
            <li key={number}>
              program {number} presses {slotName(show, show.rig.slots[called])}{' '}
              <LinkButton
                aria-label={`No longer called by program ${number}`}
                onClick={() => {
                  const { [number]: _, ...rest } = calls!.programs;
                  set(rest);
                }}
              >
                ×
              </LinkButton>
            </li>
          ))}
        </ul>
        {slots.length > 0 ? (
          <LineForm does="Add call" onAdd={add} last>
            <NumberInput
              aria-label="Program that calls"
              placeholder="0 to 127, as sent"
              min={0}
              max={127}
              allowDecimal={false}
              value={program}
              onChange={setProgram}
              error={reason ?? undefined}
              style={{ width: 150 }}
            />
            <CellSelect
              bordered
              label="Slot that it presses"
              value={slot}
              choices={slotChoices(show, slots)}
              onPick={setSlot}
            />
          </LineForm>
        ) : (
          <span className="soft">no slots yet: lay the sounds out</span>
        )}
      </td>
    </tr>
  );
}
