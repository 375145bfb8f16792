import { FileButton, Menu, Button } from '@mantine/core';
import { type Command, describeProblem, type Problem, readSetList, readSongs, type Result, type Rows, type SetList, setListRows, songRows, writeRows } from '@yunta/core';
import { useRef } from 'react';
import { useShow } from '../../api/rig.tsx';
import { download, fileName } from '../../ui/download.ts';
import { freshId } from '../../ui/ids.ts';
import { readTable } from './read-table.ts';
import { useSetMidi } from './SongParts.tsx';

/** Songs and lists in and out as tables; the whole set as a MIDI file. */
export function SetFiles({ list }: { readonly list: SetList | null }) {
  const { show, run, store } = useShow();
  const saveMidi = useSetMidi();
  const resetSongs = useRef<() => void>(null);
  const resetList = useRef<() => void>(null);
  const take = async (file: File | null, read: (rows: Rows) => Result<Command>) => {
    if (!file) return;
    resetSongs.current?.();
    resetList.current?.();
    const table = readTable(new Uint8Array(await file.arrayBuffer()));
    if (!table.ok) return store.refuse(`${file.name}: ${table.reason}`);
    const command = read(table.rows);
    if (!command.ok) store.refuse(`${file.name} is refused, nothing was changed. ${command.problems.slice(0, 4).map(placed).join(' ')}${command.problems.length > 4 ? ` And ${command.problems.length - 4} more.` : ''}`);
    else if (command.value.steps.length === 0) store.tell(`${file.name} says nothing new.`);
    else run(command.value);
  };
  const fresh = (name: string, taken: ReadonlySet<string>) => freshId(name, Object.fromEntries([...taken].map((id) => [id, true])), 'song');
  const listName = (file: File) => file.name.replace(/\.[^.]*$/, '').slice(0, 200) || 'Set';
  return (
    <>
      <FileButton resetRef={resetSongs} accept=".csv,.tsv,.txt,text/csv" onChange={(file) => void take(file, (rows) => readSongs(show, rows, fresh))}>
        {(props) => (
          <Button variant="default" {...props}>
            Songs in (CSV)
          </Button>
        )}
      </FileButton>
      <FileButton
        resetRef={resetList}
        accept=".csv,.tsv,.txt,text/csv"
        onChange={(file) => file && void take(file, (rows) => readSetList(show, rows, { id: freshId(listName(file), show.songbook.setLists, 'set'), name: listName(file) }))}
      >
        {(props) => (
          <Button variant="default" {...props}>
            List in (CSV)
          </Button>
        )}
      </FileButton>
      <Menu shadow="none" position="bottom-end">
        <Menu.Target>
          <Button variant="default">Take away</Button>
        </Menu.Target>
        <Menu.Dropdown>
          <Menu.Item onClick={() => download(fileName(`${show.songbook.name} songs`, 'csv'), writeRows(songRows(show)), 'text/csv')}>Songs, CSV</Menu.Item>
          {list && <Menu.Item onClick={() => download(fileName(list.name, 'csv'), writeRows(setListRows(show, list.id)), 'text/csv')}>This list, CSV</Menu.Item>}
          {list && <Menu.Item onClick={saveMidi}>This list, MIDI file</Menu.Item>}
        </Menu.Dropdown>
      </Menu>
    </>
  );
}

/** “Line 3, tempo: …” */
function placed(problem: Problem): string {
  const [, , line, column] = problem.pointer.split('/');
  return `${line ? `Line ${line}${column ? `, ${column}` : ''}: ` : ''}${describeProblem(problem)}`;
}
