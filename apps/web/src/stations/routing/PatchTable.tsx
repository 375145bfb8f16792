import { TextInput } from '@mantine/core';
import { type Cable, commands, inOrder, type Jack, type Plug, readPatchLine, type Rig, wire } from '@yunta/core';
import { useState } from 'react';
import { useShow } from '../../api/rig.tsx';
import { LineForm } from '../../ui/LineForm.tsx';
import { EditableText } from '../../ui/EditableText.tsx';
import { freshId } from '../../ui/ids.ts';

const reasons = {
  'no-arrow': () => 'Write it as “guitar > switcher”: what it comes from, an arrow, what it goes into.',
  'no-device': (typed: string) => `No device is called “${typed}”. Add it above first, or check the name.`,
  'no-jack': (typed: string) => `No free jacks fit “${typed}”. Name them (“switcher send 4 > combo input”), or pull a cable first.`,
} as const;

/** What is plugged into what, each row edited in place; a new cable is said in one line. */
export function PatchTable() {
  const { show, run } = useShow();
  const [line, setLine] = useState('');
  const [reason, setReason] = useState<string | null>(null);
  const cables = inOrder(show.rig.cables);
  const add = () => {
    const read = readPatchLine(show.rig, line);
    if (!read.ok) return setReason(reasons[read.reason](read.typed));
    if (!run(commands.connect(show, freshId('cable', show.rig.cables, 'cable'), read.from, read.to))) return;
    setLine('');
    setReason(null);
  };
  return (
    <>
      <div className="sectionhead">
        <h2>Patch</h2>
        <span className="soft">
          {cables.length} {cables.length === 1 ? 'cable' : 'cables'}
        </span>
      </div>
      <div className="sheet">
        <LineForm does="Connect" onAdd={add}>
          <TextInput className="grow" aria-label="Add a cable" placeholder="guitar > switcher    or    switcher send 4 > combo input" value={line} onChange={(event) => setLine(event.target.value)} error={reason ?? undefined} spellCheck={false} autoComplete="off" />
        </LineForm>
        {cables.length === 0 ? (
          <p className="soft" style={{ padding: '4px 12px' }}>
            No cables yet.
          </p>
        ) : (
          <table className="plain">
            <thead>
              <tr>
                <th style={{ width: 72 }}>Tag</th>
                <th>From</th>
                <th>To</th>
                <th style={{ width: 76 }}>Length, m</th>
                <th style={{ width: 88 }}>Loom</th>
                <th style={{ width: 48 }} />
              </tr>
            </thead>
            <tbody>
              {cables.map((cable) => (
                <CableRow key={cable.id} cable={cable} />
              ))}
            </tbody>
          </table>
        )}
      </div>
    </>
  );
}

function CableRow({ cable }: { readonly cable: Cable }) {
  const { show, run, store } = useShow();
  const set = <K extends 'tag' | 'loom' | 'length'>(field: K, value: Cable[K]) => run(commands.setCable(show, cable.id, field, value));
  const setLength = (typed: string) => {
    const metres = typed === '' ? null : Number(typed.replace(',', '.'));
    if (metres === null || (Number.isFinite(metres) && metres >= 0)) set('length', metres);
    else store.refuse(`“${typed}” is not a length in metres.`);
  };
  return (
    <tr>
      <td>
        <EditableText className="cellinput tag" label={`Tag of ${cable.tag}`} value={cable.tag} onTake={(tag) => set('tag', tag)} />
      </td>
      {cable.plugs.slice(0, 2).map((plug, end) => (
        <td key={end}>
          <PlugSelect cable={cable} end={end} plug={plug} />
        </td>
      ))}
      <td>
        <EditableText className="cellinput mono" label={`Length of ${cable.tag}`} value={cable.length === null ? '' : String(cable.length)} placeholder="—" onTake={setLength} />
      </td>
      <td>
        <EditableText label={`Loom of ${cable.tag}`} value={cable.loom ?? ''} placeholder="—" onTake={(loom) => set('loom', loom === '' ? null : loom)} />
      </td>
      <td>
        <button className="linkish" aria-label={`Pull ${cable.tag}`} onClick={() => run(commands.disconnect(show, cable.id))}>
          Pull
        </button>
      </td>
    </tr>
  );
}

/** One end of a cable: its jack, and every free jack that this end could go into instead. */
function PlugSelect({ cable, end, plug }: { readonly cable: Cable; readonly end: number; readonly plug: Plug }) {
  const { show, wiring, run } = useShow();
  const [open, setOpen] = useState(false);
  const here = wiring.device.get(plug.device)?.jack.get(plug.jack);
  const value = `${plug.device}:${plug.jack}`;
  const others = open ? freeJacks(show.rig, here) : [];
  const label = `${show.rig.devices[plug.device].name} ${here?.label ?? plug.jack}`;
  return (
    <select
      className="cellinput"
      aria-label={`${end === 0 ? 'From' : 'To'} of ${cable.tag}`}
      value={value}
      onFocus={() => setOpen(true)}
      onMouseDown={() => setOpen(true)}
      onChange={(event) => {
        const [device, jack] = event.target.value.split(':');
        run(commands.setCable(show, cable.id, 'plugs', cable.plugs.map((one, i) => (i === end ? { device, jack } : one))));
      }}
    >
      <option value={value}>{label}</option>
      {others.map(({ device, jack }) => (
        <option key={`${device.id}:${jack.id}`} value={`${device.id}:${jack.id}`}>
          {device.name} {jack.label}
        </option>
      ))}
    </select>
  );
}

function freeJacks(rig: Rig, like: Jack | undefined) {
  return wire(rig).devices.flatMap((wired) =>
    wired.anatomy.jacks.filter((jack) => sameSide(jack, like) && !wired.plugged.has(jack.id)).map((jack) => ({ device: wired.device, jack })),
  );
}

const sameSide = (jack: Jack, like: Jack | undefined): boolean => like !== undefined && (jack.speaker ?? false) === (like.speaker ?? false) && side(jack) === side(like);
const side = (jack: Jack): string => (jack.kind.startsWith('midi') ? (jack.kind === 'midi-in' ? 'midi-in' : 'midi-out') : jack.kind);
