import { Button, Checkbox, TextInput } from '@mantine/core';
import {
  castOf,
  commands,
  delayTimes,
  inOrder,
  instrumentOfPart,
  instrumentsOf,
  noteWords,
  playedOnWords,
  type Part,
  setFile,
  type PartPlan,
  slotOfCast,
  soundOfCast,
  type Song,
  songFile,
  why,
  writeSmf,
  freshId,
} from '@yunta/core';
import { useCallback, useMemo, useState } from 'react';
import { useShow } from '../../api/rig.tsx';
import { download, fileName } from '../../ui/download.ts';
import { CellSelect } from '../../ui/CellSelect.tsx';
import { type Move, Reorder, useReorderRow } from '../../ui/Reorder.tsx';
import { InlineField } from '../../ui/InlineField.tsx';
import { Why } from '../../ui/Why.tsx';
import { assumedWords } from './assumed-words.ts';
import { PartFeet } from './PartFeet.tsx';
import { playable, playedWords } from './playable.ts';
import { usePartPlans } from './use-part-plans.ts';
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
  const plans = usePartPlans();
  const move = useCallback<Move>((id, next) => run(commands.movePart(show, id, next)), [run, show]);
  const add = () => {
    const name = typed.trim();
    if (name === '') return;
    const named = Object.values(show.rig.sounds).find((sound) =>
      [`${song.name}, ${name}`, name].some((wanted) => sound.name.toLowerCase() === wanted.toLowerCase()),
    );
    if (
      run(
        commands.addPart(
          show,
          freshId(`${song.name} ${name}`, show.songbook.parts, 'part'),
          song.id,
          name,
          named ? commands.playsSound(show.rig, named.id) : null,
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
              <th>Instrument, tuning</th>
              <th>Feet and hands</th>
              <th style={{ width: 60 }}>Silent</th>
              <td style={{ width: 30 }} />
            </tr>
          </thead>
          <tbody>
            {parts.map((part) => (
              <PartRow key={part.id} part={part} plan={plans.get(part.id)} />
            ))}
            <tr>
              <td colSpan={8}>
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

function PartRow({ part, plan }: { readonly part: Part; readonly plan: PartPlan | undefined }) {
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
        <PlayedOn part={part} />
      </td>
      <td>
        <PartFeet part={part} plan={plan} />
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

/** Where a part differs from its song: another instrument, another tuning. The input of the instrument is told. */
function PlayedOn({ part }: { readonly part: Part }) {
  const { show, wiring, attempt } = useShow();
  const song = show.songbook.songs[part.song];
  const name = instrumentOfPart(show, part);
  const where = name === undefined ? '' : playedOnWords(wiring, name).slice(name.length);
  const set = (field: 'instrument' | 'tuning', text: string) =>
    attempt(commands.setPart(show, part.id, field, text === '' ? undefined : text));
  return (
    <>
      <InlineField
        label={`Instrument of part ${part.name}`}
        value={part.instrument ?? ''}
        placeholder={song.instrument ?? '—'}
        suggestions={instrumentsOf(wiring).map(({ device }) => device.name)}
        maxLength={80}
        onCommit={(text) => set('instrument', text)}
      />
      {where !== '' && <span className="soft">{where.trim()}</span>}
      <InlineField
        label={`Tuning of part ${part.name}`}
        value={part.tuning ?? ''}
        placeholder={song.tuning ?? '—'}
        maxLength={80}
        onCommit={(text) => set('tuning', text)}
      />
    </>
  );
}

/** A sound with its slot; where it has none, feet and hands bring it up. */
function CastSelect({ part }: { readonly part: Part }) {
  const { show, run } = useShow();
  const { rig } = show;
  const cast = castOf(rig, part.id);
  const slot = cast && slotOfCast(rig, cast);
  const sound = cast && soundOfCast(rig, cast);
  return (
    <CellSelect
      label={`Sound for ${part.name}`}
      value={slot ? `slot:${slot.id}` : sound ? `sound:${sound.id}` : ''}
      shownAs={playedWords(rig, slot, sound)}
      choices={() => [{ value: '', label: 'nothing yet' }, ...playable(rig)]}
      onPick={(picked) => {
        const [kind, id] = picked.split(':');
        run(commands.castPart(show, part.id, id === undefined ? null : kind === 'slot' ? { slot: id } : { sound: id }));
      }}
    />
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
