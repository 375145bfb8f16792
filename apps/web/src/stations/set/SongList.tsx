import { commands, numberTyped, type SetList, type Song, instrumentsOf } from '@yunta/core';
import { useCallback, useMemo, useState } from 'react';
import { useShow } from '../../api/rig.tsx';
import { type Move, Reorder, useReorderRow } from '../../ui/Reorder.tsx';
import { InlineField } from '../../ui/InlineField.tsx';
import { numberShown } from '../../ui/numbers.ts';
import { SongParts } from './SongParts.tsx';
import { LinkButton } from '../../ui/LinkButton.tsx';

/** Songs as rows; in a list they can be put into another order by hand or by keys. */
export function SongList({
  songs,
  list,
  onPut,
}: {
  readonly songs: readonly Song[];
  readonly list: SetList | null;
  readonly onPut?: (song: string) => void;
}) {
  const { show, run } = useShow();
  const [open, setOpen] = useState<string | null>(null);
  const ids = useMemo(() => songs.map((song) => song.id as string), [songs]);
  const move = useCallback<Move>(
    (id, next) => {
      if (!list) return;
      const others = list.songs.filter((song) => song !== id);
      const at = next === null ? others.length : others.indexOf(next as never);
      run(commands.setSetList(show, list.id, 'songs', [...others.slice(0, at), id as never, ...others.slice(at)]));
    },
    [list, run, show],
  );
  const rows = songs.map((song, i) => (
    <SongRow
      key={song.id}
      song={song}
      number={list ? i + 1 : null}
      list={list}
      open={open === song.id}
      onOpen={() => setOpen(open === song.id ? null : song.id)}
      {...(onPut ? { onPut } : {})}
    />
  ));
  return (
    <>
      <div className="songrow head" aria-hidden="true">
        <span />
        <span>#</span>
        <span>Song</span>
        <span>BPM</span>
        <span>Meter</span>
        <span>Instrument</span>
        <span>Tuning</span>
        <span />
      </div>
      {list ? (
        <Reorder ids={ids} onMove={move}>
          <ol className="songs" aria-label={`Songs of ${list.name}`}>
            {rows}
          </ol>
        </Reorder>
      ) : (
        <ul className="songs">{rows}</ul>
      )}
    </>
  );
}

interface SongRowProps {
  readonly song: Song;
  readonly number: number | null;
  readonly list: SetList | null;
  readonly open: boolean;
  readonly onOpen: () => void;
  readonly onPut?: (song: string) => void;
}

function SongRow(props: SongRowProps) {
  return props.list ? (
    <SortableRow {...props} />
  ) : (
    <li data-inhand={props.open}>{<Fields {...props} grip={null} />}</li>
  );
}

function SortableRow(props: SongRowProps) {
  const { ref, style, onKeyDown, grip } = useReorderRow(props.song.id, props.song.name);
  return (
    <li ref={ref} style={style} onKeyDown={onKeyDown} data-inhand={props.open}>
      <Fields {...props} grip={grip} />
    </li>
  );
}

function Fields({ song, number, list, open, onOpen, onPut, grip }: SongRowProps & { readonly grip: React.ReactNode }) {
  const { show, run, attempt, wiring } = useShow();
  const instruments = instrumentsOf(wiring).map(({ device }) => device.name);
  const set = <K extends 'name' | 'tempo' | 'meter' | 'instrument' | 'tuning'>(field: K, value: Song[K]) =>
    attempt(commands.setSong(show, song.id, field, value));
  const setTempo = (text: string) => {
    const tempo = text === '' ? null : numberTyped(text);
    return tempo === null || (tempo !== undefined && tempo >= 20 && tempo <= 400)
      ? set('tempo', tempo)
      : `“${text}” is not a tempo: 20 to 400 quarter notes a minute.`;
  };
  const setMeter = (text: string) => {
    const read = /^(\d{1,2})\s*\/\s*(2|4|8|16)$/.exec(text);
    if (text === '') return set('meter', undefined);
    return read && Number(read[1]) >= 1 && Number(read[1]) <= 32
      ? set('meter', { beats: Number(read[1]), unit: Number(read[2]) as 2 | 4 | 8 | 16 })
      : `“${text}” is not a meter. Write it as 4/4, 3/4 or 6/8.`;
  };
  const parts = Object.values(show.songbook.parts).filter((part) => part.song === song.id);
  return (
    <>
      <div className="songrow">
        {grip ?? <span />}
        <span className="num soft">{number}</span>
        <InlineField
          label={`Name of ${song.name}`}
          value={song.name}
          onCommit={(name) => (name === '' ? 'A song needs a name.' : set('name', name))}
        />
        <InlineField
          look="mono"
          label={`Tempo of ${song.name}`}
          value={song.tempo === null ? '' : numberShown(song.tempo)}
          placeholder="—"
          onCommit={setTempo}
        />
        <InlineField
          look="mono"
          label={`Meter of ${song.name}`}
          value={song.meter ? `${song.meter.beats}/${song.meter.unit}` : ''}
          placeholder="4/4"
          onCommit={setMeter}
        />
        <InlineField
          label={`Instrument of ${song.name}`}
          value={song.instrument ?? ''}
          placeholder="—"
          suggestions={instruments}
          onCommit={(text) => set('instrument', text === '' ? undefined : text)}
        />
        <InlineField
          label={`Tuning of ${song.name}`}
          value={song.tuning ?? ''}
          placeholder="—"
          onCommit={(text) => set('tuning', text === '' ? undefined : text)}
        />
        <span style={{ display: 'flex', gap: 6, justifyContent: 'end' }}>
          <LinkButton
            aria-expanded={open}
            aria-label={`${parts.length} ${parts.length === 1 ? 'part' : 'parts'} of ${song.name}`}
            onClick={onOpen}
          >
            {parts.length} {parts.length === 1 ? 'part' : 'parts'}
          </LinkButton>
          {list ? (
            <LinkButton
              aria-label={`Take ${song.name} out of the list`}
              title="Out of this list"
              onClick={() =>
                run(
                  commands.setSetList(
                    show,
                    list.id,
                    'songs',
                    list.songs.filter((id) => id !== song.id),
                  ),
                )
              }
            >
              ×
            </LinkButton>
          ) : (
            <>
              <LinkButton aria-label={`Put ${song.name} into the list`} onClick={() => onPut?.(song.id)}>
                Put in
              </LinkButton>
              <LinkButton
                aria-label={`Remove ${song.name}`}
                title="Remove this song for good"
                onClick={() => run(commands.removeSong(show, song.id))}
              >
                ×
              </LinkButton>
            </>
          )}
        </span>
      </div>
      {open && <SongParts song={song} />}
    </>
  );
}
