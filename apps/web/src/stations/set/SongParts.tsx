import { Button, Checkbox, TextInput, UnstyledButton } from '@mantine/core';
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
  slotLabel,
  type Song,
  songFile,
  why,
  writeSmf,
} from '@yunta/core';
import { useCallback, useMemo, useState } from 'react';
import { useShow } from '../../api/rig.tsx';
import { download, fileName } from '../../ui/download.ts';
import { CellSelect } from '../../ui/CellSelect.tsx';
import { type Move, Reorder, useReorderRow } from '../../ui/Reorder.tsx';
import { InlineField } from '../../ui/InlineField.tsx';
import { freshId } from '../../ui/ids.ts';
import { Why } from '../../ui/Why.tsx';
import { assumedWords } from './assumed-words.ts';
import { LinkButton } from '../../ui/LinkButton.tsx';
import { DataTable } from '../../ui/DataTable.tsx';

/** A song from inside: its parts and what plays each, its delay times, its MIDI file. */
export function SongParts({ song }: { readonly song: Song }) {
  const { show, run, wiring, store } = useShow();
  const [typed, setTyped] = useState('');
  const parts = useMemo(
    () => inOrder(show.songbook.parts).filter((part) => part.song === song.id),
    [show.songbook.parts, song.id],
  );
  const ids = useMemo(() => parts.map((part) => part.id as string), [parts]);
  const move = useCallback<Move>((id, next) => run(commands.movePart(show, id, next)), [run, show]);
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
      <Reorder ids={ids} onMove={move}>
        <DataTable>
          <thead>
            <tr>
              <td style={{ width: 26 }} />
              <th>Part</th>
              <th style={{ width: 56 }}>Bars</th>
              <th>Played by</th>
              <th>Feet and cues</th>
              <th style={{ width: 60 }}>Silent</th>
              <td style={{ width: 30 }} />
            </tr>
          </thead>
          <tbody>
            {parts.map((part) => (
              <PartRow key={part.id} part={part} />
            ))}
            <tr>
              <td colSpan={7}>
                <TextInput
                  variant="unstyled"
                  aria-label={`Add a part to ${song.name}`}
                  placeholder="add a part: verse ↵"
                  value={typed}
                  onChange={(event) => setTyped(event.currentTarget.value)}
                  onKeyDown={(event) => event.key === 'Enter' && add()}
                  maxLength={200}
                />
              </td>
            </tr>
          </tbody>
        </DataTable>
      </Reorder>
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

function PartRow({ part }: { readonly part: Part }) {
  const { ref, style, onKeyDown, grip } = useReorderRow(part.id, `part ${part.name}`);
  const { show, run, attempt } = useShow();
  const setBars = (text: string) => {
    const bars = text === '' ? undefined : Number(text);
    return bars === undefined || (Number.isInteger(bars) && bars >= 1 && bars <= 2000)
      ? attempt(commands.setPart(show, part.id, 'bars', bars))
      : `“${text}” is not a number of bars: 1 to 2,000.`;
  };
  return (
    <tr ref={ref} style={style} onKeyDown={onKeyDown}>
      <td>{grip}</td>
      <td>
        <InlineField
          label={`Name of part ${part.name}`}
          value={part.name}
          onCommit={(name) =>
            name === '' ? 'A part needs a name.' : attempt(commands.setPart(show, part.id, 'name', name))
          }
        />
      </td>
      <td>
        <InlineField
          look="mono"
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
        <Checkbox
          size="xs"
          aria-label={`${part.name} is silent`}
          checked={part.silent ?? false}
          onChange={(event) =>
            run(commands.setPart(show, part.id, 'silent', event.currentTarget.checked ? true : undefined))
          }
        />
      </td>
      <td style={{ textAlign: 'right', whiteSpace: 'nowrap' }}>
        <LinkButton aria-label={`Remove part ${part.name}`} onClick={() => run(commands.removePart(show, part.id))}>
          ×
        </LinkButton>
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
    <CellSelect
      label={`Slot for ${part.name}`}
      value={cast?.slot ?? ''}
      choices={[
        { value: '', label: 'nothing yet' },
        ...slots.map((slot) => ({
          value: slot.id,
          label: `${show.rig.sounds[slot.sound!]?.name}, ${slotLabel(slot)}`,
        })),
      ]}
      onPick={(picked) => run(commands.castPart(show, part.id, picked === '' ? null : picked))}
    />
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
    wired.anatomy.switches.map((footSwitch) => ({ device: wired.device, footSwitch })),
  );
  const nameOf = (action: { readonly device: string; readonly switch: string }) =>
    wiring.device.get(action.device)?.device.name ?? action.device;
  return (
    <span style={{ display: 'flex', gap: 6, alignItems: 'center', flexWrap: 'wrap' }}>
      {feet.map((action, i) => (
        <UnstyledButton
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
        </UnstyledButton>
      ))}
      {switches.length > 0 && (
        <span style={{ width: 74 }}>
          <CellSelect
            label={`Plan a foot before ${part.name}`}
            value=""
            placeholder="+ foot"
            choices={switches.map(({ device, footSwitch }) => ({
              value: `${device.id} ${footSwitch.id}`,
              label: `${device.name}: ${footSwitch.label}`,
            }))}
            onPick={(picked) => {
              const [device, id] = picked.split(' ');
              run(commands.setCast(show, cast.id, 'before', [{ kind: 'foot', device, switch: id }, ...cast.before]));
            }}
          />
        </span>
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
