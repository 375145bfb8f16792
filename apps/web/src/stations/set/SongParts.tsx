import { Button } from '@mantine/core';
import {
  type CastAction,
  castOf,
  commands,
  cueLabel,
  delayTimes,
  inOrder,
  noteWords,
  type Part,
  setFile,
  type Song,
  songFile,
  why,
  writeSmf,
} from '@yunta/core';
import { useState } from 'react';
import { useShow } from '../../api/rig.tsx';
import { download, fileName } from '../../ui/download.ts';
import { EditableText } from '../../ui/EditableText.tsx';
import { freshId } from '../../ui/ids.ts';
import { Why } from '../../ui/Why.tsx';
import { assumedWords } from './assumed-words.ts';

/** A song from inside: its parts and what plays each, its delay times, its MIDI file. */
export function SongParts({ song }: { readonly song: Song }) {
  const { show, run, wiring, store } = useShow();
  const [typed, setTyped] = useState('');
  const parts = inOrder(show.songbook.parts).filter((part) => part.song === song.id);
  const add = () => {
    const name = typed.trim();
    if (name === '') return;
    const slot = Object.values(show.rig.slots).find(
      (slot) =>
        slot.sound !== null &&
        show.rig.sounds[slot.sound]?.name.toLowerCase() === `${song.name}, ${name}`.toLowerCase(),
    );
    if (
      run(
        commands.addPart(
          show,
          freshId(`${song.name} ${name}`, show.songbook.parts, 'part'),
          song.id,
          name,
          slot?.id ?? null,
        ),
      )
    )
      setTyped('');
  };
  const save = () => {
    const file = songFile(show, wiring, song.id);
    download(fileName(song.name, 'mid'), writeSmf(file.smf), 'audio/midi');
    if (file.assumed.length > 0) store.tell(`The MIDI file is saved. Assumed in it: ${assumedWords(file.assumed)}`);
  };
  return (
    <div className="parts">
      <table className="plain">
        <thead>
          <tr>
            <th>Part</th>
            <th style={{ width: 56 }}>Bars</th>
            <th>Played by</th>
            <th>Feet and cues</th>
            <th style={{ width: 60 }}>Silent</th>
            <th style={{ width: 100 }} />
          </tr>
        </thead>
        <tbody>
          {parts.map((part, i) => (
            <PartRow
              key={part.id}
              part={part}
              before={parts[i - 1]?.id ?? null}
              after={parts[i + 1]?.id ?? null}
              afterNext={parts[i + 2]?.id ?? null}
            />
          ))}
          <tr>
            <td colSpan={6}>
              <input
                className="cellinput"
                aria-label={`Add a part to ${song.name}`}
                placeholder="add a part: verse ↵"
                value={typed}
                onChange={(event) => setTyped(event.target.value)}
                onKeyDown={(event) => event.key === 'Enter' && add()}
                maxLength={200}
              />
            </td>
          </tr>
        </tbody>
      </table>
      <div className="delays" aria-label="Delay times">
        {song.tempo === null ? (
          <span className="soft">No tempo, no delay times.</span>
        ) : (
          delayTimes(song.tempo).map(({ note }) => (
            <span key={note}>
              <span className="soft">{noteWords[note]}</span> <Why evidence={why.delayTime(song.tempo!, note)} />
            </span>
          ))
        )}
        <span style={{ flex: 1 }} />
        <Button variant="default" size="compact-xs" onClick={save}>
          MIDI file of this song
        </Button>
      </div>
    </div>
  );
}

function PartRow({
  part,
  before,
  after,
  afterNext,
}: {
  readonly part: Part;
  readonly before: string | null;
  readonly after: string | null;
  readonly afterNext: string | null;
}) {
  const { show, run, store } = useShow();
  const setBars = (text: string) => {
    const bars = text === '' ? undefined : Number(text);
    if (bars === undefined || (Number.isInteger(bars) && bars >= 1 && bars <= 2000))
      run(commands.setPart(show, part.id, 'bars', bars));
    else store.refuse(`“${text}” is not a number of bars.`);
  };
  return (
    <tr>
      <td>
        <EditableText
          label={`Name of part ${part.name}`}
          value={part.name}
          onCommit={(name) => name !== '' && run(commands.setPart(show, part.id, 'name', name))}
        />
      </td>
      <td>
        <EditableText
          className="cellinput mono"
          label={`Bars of ${part.name}`}
          value={part.bars === undefined ? '' : String(part.bars)}
          placeholder="—"
          onCommit={setBars}
        />
      </td>
      <td>
        <CastSelect part={part} />
      </td>
      <td>
        <Feet part={part} />
      </td>
      <td>
        <input
          type="checkbox"
          aria-label={`${part.name} is silent`}
          checked={part.silent ?? false}
          onChange={(event) => run(commands.setPart(show, part.id, 'silent', event.target.checked ? true : undefined))}
        />
      </td>
      <td style={{ textAlign: 'right', whiteSpace: 'nowrap' }}>
        <button
          className="linkish"
          aria-label={`Move ${part.name} up`}
          disabled={before === null}
          onClick={() => run(commands.movePart(show, part.id, before))}
        >
          ↑
        </button>
        <button
          className="linkish"
          aria-label={`Move ${part.name} down`}
          disabled={after === null}
          onClick={() => run(commands.movePart(show, part.id, afterNext))}
        >
          ↓
        </button>
        <button
          className="linkish"
          aria-label={`Remove part ${part.name}`}
          onClick={() => run(commands.removePart(show, part.id))}
        >
          ×
        </button>
      </td>
    </tr>
  );
}

function CastSelect({ part }: { readonly part: Part }) {
  const { show, run } = useShow();
  const cast = castOf(show.rig, part.id);
  const slots = Object.values(show.rig.slots)
    .filter((slot) => slot.sound !== null)
    .sort((a, b) => a.bank - b.bank || a.position - b.position);
  return (
    <select
      className="cellinput"
      aria-label={`Slot for ${part.name}`}
      value={cast?.slot ?? ''}
      onChange={(event) => run(commands.castPart(show, part.id, event.target.value === '' ? null : event.target.value))}
    >
      <option value="">nothing yet</option>
      {slots.map((slot) => (
        <option key={slot.id} value={slot.id}>
          {slot.bank + 1} · {slot.position + 1} {show.rig.sounds[slot.sound!]?.name}
        </option>
      ))}
    </select>
  );
}

/** What the feet do before a part, besides the slot; and the hands’ cues that come with its sound. */
function Feet({ part }: { readonly part: Part }) {
  const { show, run, wiring } = useShow();
  const cast = castOf(show.rig, part.id);
  if (!cast) return null;
  const feet = cast.before.filter((action): action is Extract<CastAction, { kind: 'foot' }> => action.kind === 'foot');
  const cues = cast.before.filter((action): action is Extract<CastAction, { kind: 'cue' }> => action.kind === 'cue');
  const switches = wiring.devices.flatMap((wired) =>
    wired.anatomy.switches.map((footSwitch) => ({ device: wired.device, one: footSwitch })),
  );
  const nameOf = (action: { readonly device: string; readonly switch: string }) =>
    wiring.device.get(action.device)?.device.name ?? action.device;
  return (
    <span style={{ display: 'flex', gap: 6, alignItems: 'center', flexWrap: 'wrap' }}>
      {feet.map((action, i) => (
        <button
          key={i}
          className="tag"
          aria-label={`No foot on ${nameOf(action)} before ${part.name}`}
          title="Take it away"
          onClick={() =>
            run(
              commands.setCast(
                show,
                cast.id,
                'before',
                cast.before.filter((other) => other !== action),
              ),
            )
          }
        >
          {nameOf(action)} ×
        </button>
      ))}
      {switches.length > 0 && (
        <select
          className="cellinput"
          style={{ width: 74 }}
          aria-label={`Plan a foot before ${part.name}`}
          value=""
          onChange={(event) => {
            const [device, id] = event.target.value.split(' ');
            run(commands.setCast(show, cast.id, 'before', [{ kind: 'foot', device, switch: id }, ...cast.before]));
          }}
        >
          <option value="">+ foot</option>
          {switches.map(({ device, one }) => (
            <option key={`${device.id} ${one.id}`} value={`${device.id} ${one.id}`}>
              {device.name}: {one.label}
            </option>
          ))}
        </select>
      )}
      {cues.length > 0 && (
        <span style={{ color: 'var(--hands)', fontSize: 12 }}>
          {cues.map((cue) => cueLabel(wiring, cue.control, cue.value)).join(', ')}
        </span>
      )}
    </span>
  );
}

/** The whole list as one file. */
export function useSetMidi(): () => void {
  const { show, wiring, store } = useShow();
  return () => {
    const file = setFile(show, wiring);
    download(fileName(`${show.rig.name} set`, 'mid'), writeSmf(file.smf), 'audio/midi');
    if (file.assumed.length > 0) store.tell(`The MIDI file is saved. Assumed in it: ${assumedWords(file.assumed)}`);
  };
}
