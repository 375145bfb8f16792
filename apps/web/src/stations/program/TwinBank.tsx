import { Button, TextInput } from '@mantine/core';
import { controlRef, type Device, domainLabel, domainValues, slotsOfController, twinBank } from '@yunta/core';
import { useState } from 'react';
import { useShow } from '../../api/rig.tsx';
import { CellSelect } from '../../ui/CellSelect.tsx';
import { Fold } from '../../ui/Fold.tsx';

/** The same sounds once more on another bank, but for one thing: the cable’s input instead of the radio’s. */
export function TwinBank({ controller }: { readonly controller: Device }) {
  const { show, run, wiring } = useShow();
  const slots = slotsOfController(show.rig, controller.id);
  const { banks } = wiring.device.get(controller.id)!.anatomy.controller!;
  const used = [...new Set(slots.filter(({ sound }) => sound !== null).map(({ bank }) => bank))];
  const free = Array.from({ length: banks }, (_, bank) => bank).filter(
    (bank) => !slots.some((slot) => slot.bank === bank),
  );
  const things = wiring.devices.flatMap(({ device, anatomy }) =>
    anatomy.controls
      .filter(
        ({ id, domain }) =>
          (domain.kind === 'choice' || domain.kind === 'switch') &&
          id !== anatomy.ownSwitch &&
          !anatomy.controller?.loops.includes(id),
      )
      .map((control) => ({
        ref: controlRef(device.id, control.id),
        label: `${device.name} ${control.label.toLowerCase()}`,
        control,
      })),
  );
  const [from, setFrom] = useState<number | null>(null);
  const [to, setTo] = useState<number | null>(null);
  const [ref, setRef] = useState<string | null>(null);
  const [value, setValue] = useState<string | null>(null);
  const [name, setName] = useState('');
  if (used.length === 0 || free.length === 0 || things.length === 0) return null;
  const thing = things.find((each) => each.ref === ref) ?? things[0];
  const values = domainValues(thing.control.domain);
  const chosen = values.find((each) => String(each) === value) ?? values.at(-1)!;
  const bankFrom = from !== null && used.includes(from) ? from : used[0];
  const bankTo = to !== null && free.includes(to) ? to : free[0];
  const make = () =>
    run(
      twinBank(show, controller.id, bankFrom, bankTo, {
        ref: thing.ref,
        value: chosen,
        name: name.trim() === '' ? domainLabel(thing.control.domain, chosen) : name.trim(),
      }),
    );
  const bank = (number: number) => ({ value: String(number), label: `bank ${number + 1}` });
  return (
    <div className="sheet" style={{ marginTop: 10, padding: '4px 12px' }}>
      <Fold title="A bank of twins">
        <p className="soft" style={{ margin: '6px 0' }}>
          The same sounds once more on another bank, the same but for one thing. Each follows its twin, and one that
          drifts is found.
        </p>
        <div style={{ display: 'flex', gap: 8, alignItems: 'center', flexWrap: 'wrap', paddingBottom: 8 }}>
          <CellSelect
            bordered
            label="Bank to double"
            value={String(bankFrom)}
            choices={used.map(bank)}
            onPick={(picked) => setFrom(Number(picked))}
          />
          <span className="soft">once more in</span>
          <CellSelect
            bordered
            label="Bank of the twins"
            value={String(bankTo)}
            choices={free.map(bank)}
            onPick={(picked) => setTo(Number(picked))}
          />
          <span className="soft">with</span>
          <CellSelect
            bordered
            label="What is otherwise"
            value={thing.ref}
            choices={things.map((each) => ({ value: each.ref, label: each.label }))}
            onPick={(picked) => {
              setRef(picked);
              setValue(null);
            }}
          />
          <CellSelect
            bordered
            label="What it is there"
            value={String(chosen)}
            choices={values.map((each) => ({ value: String(each), label: domainLabel(thing.control.domain, each) }))}
            onPick={setValue}
          />
          <TextInput
            size="xs"
            aria-label="Called"
            placeholder={`called “…, ${domainLabel(thing.control.domain, chosen)}”`}
            maxLength={60}
            value={name}
            onChange={(event) => setName(event.currentTarget.value)}
          />
          <Button variant="default" size="compact-sm" onClick={make}>
            Make the twins
          </Button>
        </div>
      </Fold>
    </div>
  );
}
