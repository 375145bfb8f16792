import { commands, inOrder, type Part, type Song } from '@yunta/core';
import { useState } from 'react';
import { useShow } from '../../api/rig.tsx';
import { LineForm } from '../../ui/LineForm.tsx';
import { EditableText } from '../../ui/EditableText.tsx';
import { freshId } from '../../ui/ids.ts';

/** Songs, their parts, and the slot that plays each part, in set order. */
export function SongsTable() {
  const { show, run } = useShow();
  const [song, setSong] = useState('');
  const songs = inOrder(show.songbook.songs);
  const parts = inOrder(show.songbook.parts);
  const add = () => {
    const name = song.trim();
    if (name !== '' && run(commands.addSong(show, freshId(name, show.songbook.songs, 'song'), name))) setSong('');
  };
  return (
    <>
      <div className="sectionhead">
        <h2>Songs, parts and casting</h2>
        <span className="soft">
          {songs.length} songs, {parts.length} parts
        </span>
      </div>
      <div className="sheet">
        <LineForm does="Add song" onAdd={add}>
          <input className="cellinput" style={{ border: '1px solid var(--line)', flex: 1, padding: '5px 8px' }} aria-label="Add a song" placeholder="Add a song: Harbour Light" value={song} onChange={(event) => setSong(event.target.value)} maxLength={200} />
        </LineForm>
        {songs.length > 0 && (
          <table className="plain">
            <thead>
              <tr>
                <th>Song</th>
                <th style={{ width: 72 }}>BPM</th>
                <th>Part</th>
                <th>Played by</th>
                <th style={{ width: 44 }} />
              </tr>
            </thead>
            <tbody>
              {songs.map((one) => (
                <SongRows key={one.id} song={one} parts={parts.filter((part) => part.song === one.id)} />
              ))}
            </tbody>
          </table>
        )}
      </div>
    </>
  );
}

function SongRows({ song, parts }: { readonly song: Song; readonly parts: readonly Part[] }) {
  const { show, run, store } = useShow();
  const [typed, setTyped] = useState('');
  const setTempo = (text: string) => {
    const tempo = text === '' ? null : Number(text.replace(',', '.'));
    if (tempo === null || (tempo >= 20 && tempo <= 400)) run(commands.setSong(show, song.id, 'tempo', tempo));
    else store.refuse(`“${text}” is not a tempo: 20 to 400 beats a minute.`);
  };
  const add = () => {
    const name = typed.trim();
    if (name === '') return;
    const slot = Object.values(show.rig.slots).find((one) => one.sound !== null && show.rig.sounds[one.sound]?.name.toLowerCase() === `${song.name}, ${name}`.toLowerCase());
    if (run(commands.addPart(show, freshId(`${song.name} ${name}`, show.songbook.parts, 'part'), song.id, name, slot?.id ?? null))) setTyped('');
  };
  return (
    <>
      {parts.map((part, i) => (
        <tr key={part.id}>
          <td>{i === 0 && <SongCell song={song} />}</td>
          <td>{i === 0 && <EditableText className="cellinput mono" label={`Tempo of ${song.name}`} value={song.tempo === null ? '' : String(song.tempo)} placeholder="—" onTake={setTempo} />}</td>
          <td>{part.name}</td>
          <td>
            <CastSelect part={part} />
          </td>
          <td>
            <button className="linkish" aria-label={`Remove ${part.name} of ${song.name}`} onClick={() => run(commands.removePart(show, part.id))}>
              ×
            </button>
          </td>
        </tr>
      ))}
      <tr>
        <td>{parts.length === 0 && <SongCell song={song} />}</td>
        <td>{parts.length === 0 && <EditableText className="cellinput mono" label={`Tempo of ${song.name}`} value={song.tempo === null ? '' : String(song.tempo)} placeholder="—" onTake={setTempo} />}</td>
        <td colSpan={3}>
          <input className="cellinput" aria-label={`Add a part to ${song.name}`} placeholder="add a part: verse ↵" value={typed} onChange={(event) => setTyped(event.target.value)} onKeyDown={(event) => event.key === 'Enter' && add()} maxLength={200} />
        </td>
      </tr>
    </>
  );
}

function SongCell({ song }: { readonly song: Song }) {
  const { show, run } = useShow();
  return (
    <span style={{ display: 'flex', alignItems: 'center', gap: 4 }}>
      <EditableText label={`Name of ${song.name}`} value={song.name} onTake={(name) => name !== '' && run(commands.setSong(show, song.id, 'name', name))} />
      <button className="linkish" aria-label={`Remove ${song.name}`} title="Remove this song" onClick={() => run(commands.removeSong(show, song.id))}>
        ×
      </button>
    </span>
  );
}

function CastSelect({ part }: { readonly part: Part }) {
  const { show, run } = useShow();
  const cast = Object.values(show.rig.casting).find((one) => one.part === part.id);
  const slots = Object.values(show.rig.slots).filter((slot) => slot.sound !== null).sort((a, b) => a.bank - b.bank || a.position - b.position);
  const extras = (cast?.before.length ?? 0) + (cast?.after.length ?? 0);
  return (
    <span style={{ display: 'flex', gap: 6, alignItems: 'center' }}>
      <select className="cellinput" aria-label={`Slot for ${part.name}`} value={cast?.slot ?? ''} onChange={(event) => run(commands.castPart(show, part.id, event.target.value === '' ? null : event.target.value))}>
        <option value="">nothing yet</option>
        {slots.map((slot) => (
          <option key={slot.id} value={slot.id}>
            {slot.bank + 1} · {slot.position + 1} {show.rig.sounds[slot.sound!]?.name}
          </option>
        ))}
      </select>
      {extras > 0 && <span className="soft">+{extras} by foot or cue</span>}
    </span>
  );
}
