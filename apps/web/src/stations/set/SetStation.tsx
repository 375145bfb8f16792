import { Button, TextInput } from '@mantine/core';
import { IconUsersGroup } from '@tabler/icons-react';
import { chosenSetList, combine, commands, inOrder, type SetList, type Show, freshId, freshName } from '@yunta/core';
import { useState } from 'react';
import { useSaved, useShow } from '../../api/rig.tsx';
import { CellSelect } from '../../ui/CellSelect.tsx';
import { Confirm } from '../../ui/Confirm.tsx';
import { InlineField } from '../../ui/InlineField.tsx';
import { onPasteLines } from '../../ui/pasted-lines.ts';
import { LineForm } from '../../ui/LineForm.tsx';
import { StationHead } from '../../ui/StationHead.tsx';
import { SetFiles } from './SetFiles.tsx';
import { SongList } from './SongList.tsx';
import './set.css';

/** What hands and feet do tonight: songs in order, their parts, and the sound that plays each. */
export function SetStation() {
  const { show, run } = useShow();
  const { songs, setLists } = show.songbook;
  const lists = inOrder(setLists);
  const list = chosenSetList(show) ?? null;
  const listed = new Set(list?.songs ?? []);
  const others = inOrder(songs).filter((song) => !listed.has(song.id));
  const [typed, setTyped] = useState('');
  const add = () => {
    const name = typed.trim();
    if (name !== '' && run(commands.addSong(show, freshId(name, songs, 'song'), name))) setTyped('');
  };
  const addLines = (lines: readonly string[]) => {
    const makes = lines.map(
      (line) => (now: Show) => commands.addSong(now, freshId(line, now.songbook.songs, 'song'), line.slice(0, 200)),
    );
    run(combine(show, { name: 'add-several', facts: { count: lines.length, what: 'songs' } }, makes));
  };
  return (
    <>
      <StationHead name="Set" startAt={['[aria-label="Add a song"]']} question="What do hands and feet do tonight?">
        <SetFiles list={list} />
      </StationHead>
      <Shared />
      <div className="sheet">
        <ListChooser lists={lists} list={list} />
        <LineForm does="Add song" onAdd={add}>
          <TextInput
            className="grow"
            aria-label="Add a song"
            placeholder="Add a song: Harbour Light"
            value={typed}
            onChange={(event) => setTyped(event.currentTarget.value)}
            onPaste={onPasteLines(addLines)}
            maxLength={200}
          />
        </LineForm>
        {list && list.songs.length > 0 ? (
          <SongList songs={list.songs.map((id) => songs[id])} list={list} />
        ) : (
          <p className="soft" style={{ padding: '4px 12px' }}>
            {Object.keys(songs).length === 0
              ? 'No songs yet. Type the first one above, or import a table: columns song, tempo, meter, instrument, tuning, part, bars, plays.'
              : 'This list is empty. Put songs in from below.'}
          </p>
        )}
      </div>
      {others.length > 0 && (
        <>
          <div className="sectionhead">
            <h2>Not in this list</h2>
            <span className="soft">{others.length}</span>
          </div>
          <div className="sheet">
            <SongList
              songs={others}
              list={null}
              onPut={(song) => list && run(commands.setSetList(show, list.id, 'songs', [...list.songs, song]))}
            />
          </div>
        </>
      )}
      {list && list.songs.length > 0 && (
        <p className="keys">
          <span>
            drag the grip, or <kbd>space</kbd> on it, then <kbd>↑↓</kbd> and <kbd>space</kbd>: another place in the list
          </span>
        </p>
      )}
    </>
  );
}

/** Who else plays these songs, where someone does. */
function Shared() {
  const { store } = useShow();
  const { sharedWith } = useSaved();
  const [asking, setAsking] = useState(false);
  const [confirming, setConfirming] = useState(false);
  if (sharedWith.length === 0) return null;
  const others = sharedWith.map((name) => `“${name}”`).join(', ');
  const part = async () => {
    setAsking(true);
    if (await store.ownSongbook()) store.tell('This rig now has songs of its own.');
    setAsking(false);
  };
  return (
    <div className="shared" role="note">
      <IconUsersGroup size={16} aria-hidden="true" />
      <span>
        Songs, parts and lists are shared with <b>{others}</b>: a change here is a change there. What sound plays a part
        is this rig’s own.
      </span>
      <Button variant="default" size="compact-xs" loading={asking} onClick={() => setConfirming(true)}>
        Make a copy of its own
      </Button>
      <Confirm
        title="Songs of its own"
        does="Make a copy"
        open={confirming}
        onConfirm={() => void part()}
        onClose={() => setConfirming(false)}
      >
        From here on the songs of this rig and those of {others} go separate ways. This cannot be undone.
      </Confirm>
    </div>
  );
}

/** Which list is played tonight; the proof in set order follows it. */
function ListChooser({ lists, list }: { readonly lists: readonly SetList[]; readonly list: SetList | null }) {
  const { show, run, attempt } = useShow();
  const add = () => {
    const name = freshName(
      'Set',
      lists.map((list) => list.name),
    );
    const id = freshId(name, show.songbook.setLists, 'set');
    run(commands.addSetList(show, id, name, list?.songs ?? [], true));
  };
  return (
    <div className="addline" style={{ alignItems: 'center' }}>
      <span className="soft" style={{ fontSize: 12 }}>
        Played tonight
      </span>
      {lists.length > 0 && (
        <CellSelect
          bordered
          label="Played tonight"
          value={list?.id ?? ''}
          choices={lists.map((each) => ({ value: each.id, label: `${each.name} (${each.songs.length})` }))}
          onPick={(picked) => run(commands.chooseSetList(show, picked))}
        />
      )}
      {list && (
        <span style={{ width: 230, display: 'flex', gap: 6, alignItems: 'baseline' }}>
          <span className="soft" style={{ fontSize: 12 }}>
            called
          </span>
          <InlineField
            label="Name of the set list"
            value={list.name}
            onCommit={(name) =>
              name === '' ? 'A list needs a name.' : attempt(commands.setSetList(show, list.id, 'name', name))
            }
          />
        </span>
      )}
      <span style={{ flex: 1 }} />
      <Button variant="default" size="compact-xs" onClick={add}>
        {list ? 'Copy as a new list' : 'New list'}
      </Button>
      {list && (
        <Button variant="default" size="compact-xs" onClick={() => run(commands.removeSetList(show, list.id))}>
          Remove the list
        </Button>
      )}
    </div>
  );
}
