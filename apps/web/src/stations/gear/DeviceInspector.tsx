import { Button, Checkbox, Select, TagsInput, TextInput } from '@mantine/core';
import {
  archetypeOf,
  assertNever,
  commands,
  type Control,
  type Device,
  domainLabel,
  domainValues,
  freeChannel,
  freshId,
  freshName,
  inOrder,
  isDeclared,
  openDevice,
  type Owner,
  type ParamSpec,
  type PowerUp,
  volumePedals,
  volumePlace,
  volumeWords,
} from '@yunta/core';
import { useEffect, useState } from 'react';
import { useLocation, useNavigate } from 'react-router';
import { useShow } from '../../api/rig.tsx';
import { ContactTable } from './ContactTable.tsx';
import { ownerWords } from './gear-words.ts';
import { IntegerField } from './IntegerField.tsx';
import { StoredPresets } from './StoredPresets.tsx';
import { OutlineFacts } from './outline/OutlineFacts.tsx';
import { PowerFacts } from './power/PowerFacts.tsx';
import { OnlyFor } from './OnlyFor.tsx';
import { ownId } from './own-id.ts';
import { TypeNote } from './TypeNote.tsx';
import { LinkButton } from '../../ui/LinkButton.tsx';
import { Fold } from '../../ui/Fold.tsx';

/** What the rig needs to know of one device: facts first that differ from unit to unit, then those of its type. */
export function DeviceInspector({ id }: { readonly id: string }) {
  const { show, run, wiring, selectDevice } = useShow();
  const station = useLocation().pathname.split('/').at(-1);
  const isOnPower = station === 'power';
  const wired = wiring.device.get(id);
  if (!wired) return null;
  const { device, anatomy } = wired;
  const set = <K extends keyof Device>(field: K, value: Device[K]) => run(commands.setDevice(show, id, field, value));
  const copy = () => {
    const devices = Object.values(show.rig.devices);
    const name = freshName(
      device.name,
      devices.map((each) => each.name),
    );
    const newId = freshId(name, show.rig.devices, 'device');
    const channel = typeof device.channel === 'number' ? freeChannel(show.rig) : device.channel;
    if (run(commands.copyDevice(show, id, newId, name, channel))) selectDevice(newId);
  };
  const listens = anatomy.jacks.some((jack) => jack.kind === 'midi-in');
  return (
    <section className="inspector" aria-label={`Inspector: ${device.name}`}>
      <div style={{ display: 'flex', justifyContent: 'space-between', alignItems: 'baseline' }}>
        <h2>{device.name}</h2>
        <LinkButton onClick={() => selectDevice(null)}>Close</LinkButton>
      </div>
      <TypeNote device={device} />
      <VolumePlaceNote device={id} />
      <NameField key={device.name} value={device.name} onCommit={(name) => set('name', name)} />
      <div className="pair">
        <Select
          label="Place"
          allowDeselect={false}
          value={device.place}
          data={inOrder(show.rig.places).map((place) => ({ value: place.id, label: place.name }))}
          onChange={(place) => place && set('place', place)}
        />
        {listens && (
          <Select
            label="Receive channel"
            allowDeselect={false}
            value={device.channel === null ? 'none' : String(device.channel)}
            data={[
              { value: 'none', label: 'none' },
              { value: 'omni', label: 'omni' },
              ...Array.from({ length: 16 }, (_, i) => ({ value: String(i + 1), label: String(i + 1) })),
            ]}
            onChange={(value) =>
              value && set('channel', value === 'none' ? null : value === 'omni' ? 'omni' : Number(value))
            }
          />
        )}
      </div>
      {isOnPower && <PowerFacts device={device} isOpen />}
      {station === 'build' && <OutlineFacts device={device} isOpen />}
      {anatomy.presets && (
        <Select
          label="Its panel counts presets"
          allowDeselect={false}
          value={String(device.firstPresetNumber)}
          data={[
            { value: '0', label: 'from 0' },
            { value: '1', label: 'from 1' },
          ]}
          onChange={(value) => value && set('firstPresetNumber', value === '0' ? 0 : 1)}
        />
      )}
      <Params device={device} />
      {anatomy.controller && (
        <span className="soft" style={{ fontSize: 12 }}>
          What it fires at power-up, what momentary switches do and what calls it is told on Program.
        </span>
      )}
      {anatomy.controls.some((control) => control.contacts) && <ContactTable device={device} />}
      <PowerUps device={device} controls={anatomy.controls} />
      <Owners device={device} controls={anatomy.controls} />
      {!isOnPower && <PowerFacts device={device} />}
      {station !== 'build' && <OutlineFacts device={device} />}
      <OnlyFor wired={wired} />
      {anatomy.switches.length > 0 && (
        <fieldset>
          <legend>Planned for the foot</legend>
          {anatomy.switches.map((footSwitch) => (
            <Checkbox
              key={footSwitch.id}
              label={footSwitch.label}
              checked={device.plannedSwitches.includes(footSwitch.id)}
              onChange={(event) =>
                set(
                  'plannedSwitches',
                  event.currentTarget.checked
                    ? [...device.plannedSwitches, footSwitch.id]
                    : device.plannedSwitches.filter((other) => other !== footSwitch.id),
                )
              }
            />
          ))}
        </fieldset>
      )}
      {anatomy.presets && <StoredPresets device={device} />}
      <div style={{ display: 'flex', flexWrap: 'wrap', gap: 8 }}>
        <OpenButton id={id} />
        <Button variant="default" onClick={copy}>
          Copy {device.name}
        </Button>
        <Button
          variant="default"
          color="red"
          onClick={() => {
            if (run(commands.removeDevice(show, id))) selectDevice(null);
          }}
        >
          Remove {device.name}
        </Button>
      </div>
    </section>
  );
}

/** To all that is inside; the device is written out first where its type is one of the generic ones. */
function OpenButton({ id }: { readonly id: string }) {
  const { show, run, id: rig, selectDevice } = useShow();
  const navigate = useNavigate();
  const { type } = show.rig.devices[id];
  const open = () => {
    if (!isDeclared(type) && !run(openDevice(show, id, ownId()))) return;
    selectDevice(null);
    void navigate(`/rig/${rig}/gear?inside=${encodeURIComponent(id)}`);
  };
  return (
    <Button variant="default" onClick={open}>
      Edit what is inside
    </Button>
  );
}

/** What a volume pedal does where it stands in the selected sound. */
function VolumePlaceNote({ device }: { readonly device: string }) {
  const { wiring, tracer, sound } = useShow();
  if (!volumePedals(wiring).includes(device)) return null;
  const place = volumePlace(tracer.trace(sound), device);
  const nameOf = (id: string) => wiring.device.get(id)!.device.name;
  return (
    <p style={{ margin: 0 }}>
      <b>{sound ? `In ${sound.name}` : 'As it powers up'}</b>:{' '}
      {place ? `${volumeWords(place, nameOf)}.` : 'the signal does not pass it: it does nothing.'}
    </p>
  );
}

/** A word or two, taken when one leaves the field or presses Enter; it may be empty. */
function TextField({
  label,
  max,
  value,
  onCommit,
}: {
  readonly label: string;
  readonly max: number;
  readonly value: string;
  readonly onCommit: (value: string) => void;
}) {
  const [typed, setTyped] = useState(value);
  useEffect(() => setTyped(value), [value]);
  const take = () => typed.trim() !== value && onCommit(typed.trim());
  return (
    <TextInput
      label={label}
      value={typed}
      maxLength={max}
      onChange={(event) => setTyped(event.target.value)}
      onBlur={take}
      onKeyDown={(event) => event.key === 'Enter' && take()}
    />
  );
}

function NameField({ value, onCommit }: { readonly value: string; readonly onCommit: (value: string) => void }) {
  const [typed, setTyped] = useState(value);
  const take = () => typed.trim() !== '' && typed.trim() !== value && onCommit(typed.trim());
  return (
    <TextInput
      label="Name"
      value={typed}
      onChange={(event) => setTyped(event.target.value)}
      onBlur={take}
      onKeyDown={(event) => event.key === 'Enter' && take()}
      maxLength={200}
    />
  );
}

/** The type's parameters, each by its kind; typical values until changed. */
function Params({ device }: { readonly device: Device }) {
  const { show, run } = useShow();
  const specs = Object.entries(archetypeOf(device.type.archetype)?.params ?? {}).filter(
    ([, spec]) => spec.kind !== 'data',
  );
  if (specs.length === 0) return null;
  return (
    <Fold title="Settings" open={device.type.archetype !== 'midi-effect' && specs.length < 9}>
      <div style={{ display: 'grid', gap: 6, marginTop: 6 }}>
        {specs.map(([name, spec]) => (
          <Param
            key={name}
            spec={spec}
            value={device.type.params[name] ?? spec.default}
            onCommit={(value) => run(commands.setParam(show, device.id, name, value))}
          />
        ))}
      </div>
    </Fold>
  );
}

function Param({
  spec,
  value,
  onCommit,
}: {
  readonly spec: ParamSpec;
  readonly value: unknown;
  readonly onCommit: (value: unknown) => void;
}) {
  switch (spec.kind) {
    case 'integer':
      return (
        <IntegerField label={spec.label} min={spec.min} max={spec.max} value={value as number} onCommit={onCommit} />
      );
    case 'boolean':
      return (
        <Checkbox
          label={spec.label}
          checked={value as boolean}
          onChange={(event) => onCommit(event.currentTarget.checked)}
        />
      );
    case 'choice':
      return (
        <Select
          label={spec.label}
          allowDeselect={false}
          value={value as string}
          data={[...spec.values]}
          onChange={(next) => next && onCommit(next)}
        />
      );
    case 'text':
      return <TextField label={spec.label} max={spec.max} value={value as string} onCommit={onCommit} />;
    case 'words':
      return (
        <TagsInput
          label={spec.label}
          value={[...(value as readonly string[])]}
          maxTags={spec.max}
          // A comma may stand inside one of them.
          splitChars={[';']}
          onChange={(next) => (next.length > 0 || spec.mayBeEmpty === true) && onCommit(next)}
        />
      );
    case 'data':
      return null;
    default:
      return assertNever(spec, 'spec');
  }
}

/** Who answers for each control: what is not programmed is a cue, and is not judged. */
function Owners({ device, controls }: { readonly device: Device; readonly controls: readonly Control[] }) {
  const { show, run } = useShow();
  const shown = controls.filter((control) => control.scope !== 'slot');
  if (shown.length === 0) return null;
  return (
    <Fold title="Controlled by">
      <div style={{ display: 'grid', gap: 6, marginTop: 6 }}>
        {shown.map((control) => (
          <Select
            key={control.id}
            label={control.label}
            allowDeselect={false}
            value={device.owners[control.id] ?? control.owner}
            data={(Object.keys(ownerWords) as Owner[]).map((owner) => ({ value: owner, label: ownerWords[owner] }))}
            onChange={(owner) =>
              owner &&
              run(commands.setDevice(show, device.id, 'owners', { ...device.owners, [control.id]: owner as Owner }))
            }
          />
        ))}
      </div>
    </Fold>
  );
}

/** Of a range that value which it has, and the one that is typical: the others are too many for a list. */
const rangeChoices = (
  control: Control,
  after: PowerUp,
): readonly { readonly value: string; readonly label: string }[] =>
  [...new Set([control.powerUp, after].flatMap((one) => (one.is === 'value' ? [String(one.value)] : [])))].map(
    (value) => ({ value, label: value }),
  );

/** What each control is after power-up; the preset too, where there are some. */
function PowerUps({ device, controls }: { readonly device: Device; readonly controls: readonly Control[] }) {
  const { show, run } = useShow();
  const shown = controls.filter((control) => control.scope === 'global' && !control.contacts);
  if (shown.length === 0) return null;
  const set = (control: Control, value: string) => {
    const after: PowerUp =
      value === 'last-state' || value === 'any'
        ? { is: value }
        : { is: 'value', value: domainValues(control.domain).find((controlValue) => String(controlValue) === value)! };
    run(commands.setDevice(show, device.id, 'powerUps', { ...device.powerUps, [control.id]: after }));
  };
  return (
    <div className="pair">
      {shown.map((control) => {
        const after = device.powerUps[control.id] ?? control.powerUp;
        return (
          <Select
            key={control.id}
            label={`${control.label} after power-up`}
            allowDeselect={false}
            value={after.is === 'value' ? String(after.value) : after.is}
            data={[
              ...(control.domain.kind === 'range'
                ? rangeChoices(control, after)
                : domainValues(control.domain).map((controlValue) => ({
                    value: String(controlValue),
                    label: domainLabel(control.domain, controlValue),
                  }))),
              { value: 'last-state', label: 'as it was left' },
              { value: 'any', label: 'nobody knows' },
            ]}
            onChange={(value) => value && set(control, value)}
          />
        );
      })}
    </div>
  );
}
