import { Button, FileButton, Menu } from '@mantine/core';
import {
  type Command,
  describeProblem,
  type Problem,
  readSetList,
  readSongs,
  type Result,
  type Rows,
  type SetList,
  setListRows,
  songRows,
  writeRows,
  freshId,
} from '@yunta/core';
import { useRef } from 'react';
import { useShow } from '../../api/rig.tsx';
import { useServices } from '../../api/services.tsx';
import { download, fileName } from '../../ui/download.ts';
import { leftOutWords } from './left-out-words.ts';
import { isMidi, readTable } from './read-table.ts';
import { useSetMidi } from './SongParts.tsx';

/** Songs in from tables and MIDI files, lists from tables; out as tables, the whole set as a MIDI file. */
export function SetFiles({ list }: { readonly list: SetList | null }) {
  const { show, run, store } = useShow();
  const { judge } = useServices();
  const saveMidi = useSetMidi();
  const resetSongs = useRef<() => void>(null);
  const resetList = useRef<() => void>(null);
  const take = (name: string, command: Result<Command>, also = '') => {
    if (!command.ok)
      store.refuse(
        `${name} is refused, nothing was changed. ${command.problems.slice(0, 4).map(placed).join(' ')}${command.problems.length > 4 ? ` And ${command.problems.length - 4} more.` : ''}`,
      );
    else if (command.value.steps.length === 0) store.tell(`${name} says nothing new.`);
    else if (run(command.value) && also !== '') store.tell(`${name} is taken in. ${also}`);
  };
  const takeTable = (name: string, bytes: Uint8Array, read: (rows: Rows) => Result<Command>) => {
    const table = readTable(bytes);
    if (table.ok) take(name, read(table.rows));
    else store.refuse(`${name}: ${table.reason}`);
  };
  const takeMidi = async (name: string, bytes: Uint8Array) => {
    const songs = await judge().songsOf(bytes, withoutEnding(name));
    if (songs.ok) take(name, readSongs(store.get().show, songs.value.rows, fresh), leftOutWords(songs.value.leftOut));
    else take(name, songs);
  };
  const takeSongs = async (file: File | null) => {
    if (!file) return;
    resetSongs.current?.();
    const bytes = new Uint8Array(await file.arrayBuffer());
    if (isMidi(bytes)) await takeMidi(file.name, bytes);
    else takeTable(file.name, bytes, (rows) => readSongs(show, rows, fresh));
  };
  const takeList = async (file: File | null) => {
    if (!file) return;
    resetList.current?.();
    const name = withoutEnding(file.name) || 'Set';
    takeTable(file.name, new Uint8Array(await file.arrayBuffer()), (rows) =>
      readSetList(show, rows, { id: freshId(name, show.songbook.setLists, 'set'), name }),
    );
  };
  const fresh = (name: string, taken: ReadonlySet<string>) =>
    freshId(name, Object.fromEntries([...taken].map((id) => [id, true])), 'song');
  return (
    <>
      <FileButton
        resetRef={resetSongs}
        accept=".csv,.tsv,.txt,.mid,.midi,text/csv,audio/midi"
        onChange={(file) => void takeSongs(file)}
      >
        {(props) => (
          <Button variant="default" {...props}>
            Import songs (CSV, MIDI)
          </Button>
        )}
      </FileButton>
      <FileButton resetRef={resetList} accept=".csv,.tsv,.txt,text/csv" onChange={(file) => void takeList(file)}>
        {(props) => (
          <Button variant="default" {...props}>
            Import list (CSV)
          </Button>
        )}
      </FileButton>
      <Menu shadow="none" position="bottom-end">
        <Menu.Target>
          <Button variant="default">Export tables</Button>
        </Menu.Target>
        <Menu.Dropdown>
          <Menu.Item
            onClick={() =>
              download(fileName(`${show.songbook.name} songs`, 'csv'), writeRows(songRows(show)), 'text/csv')
            }
          >
            Songs, CSV
          </Menu.Item>
          {list && (
            <Menu.Item
              onClick={() => download(fileName(list.name, 'csv'), writeRows(setListRows(show, list.id)), 'text/csv')}
            >
              This list, CSV
            </Menu.Item>
          )}
          {list && <Menu.Item onClick={saveMidi}>This list, MIDI file</Menu.Item>}
        </Menu.Dropdown>
      </Menu>
    </>
  );
}

const withoutEnding = (name: string): string => name.replace(/\.[^.]*$/, '').slice(0, 200);

/** “Line 3, tempo: …”, “Byte 14: …” */
function placed(problem: Problem): string {
  const [, kind, line, column] = problem.pointer.split('/');
  if (kind === 'byte') return `Byte ${line}: ${describeProblem(problem)}`;
  return `${line ? `Line ${line}${column ? `, ${column}` : ''}: ` : ''}${describeProblem(problem)}`;
}
