import { Button, FileButton, Radio, Select, TextInput } from '@mantine/core';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { freshName, starterById, type StarterId, starters } from '@yunta/core';
import type { DeletedShow, NewShow, ShowSummary } from '@yunta/contract';
import { useState } from 'react';
import { Link, useNavigate } from 'react-router';
import { createShow, listDeleted, listShows, readFileOf, removeShow, restoreShow } from '../api/shows.ts';
import { download, fileName } from '../ui/download.ts';
import { Fold } from '../ui/Fold.tsx';
import { Notice } from '../ui/Notice.tsx';
import { Refusal } from '../ui/Refusal.tsx';
import { Backups } from './Backups.tsx';
import { LinkButton } from '../ui/LinkButton.tsx';
import { DataTable } from '../ui/DataTable.tsx';
import { Confirm } from '../ui/Confirm.tsx';
import './home.css';

/** Where one begins: the rigs that are there, and three ways to a new one. */
export function Home() {
  const queries = useQueryClient();
  const go = useNavigate();
  const rigs = useQuery({ queryKey: ['shows'], queryFn: listShows });
  const again = () => queries.invalidateQueries({ queryKey: ['shows'] });
  const create = useMutation({
    mutationFn: (made: NewShow) => createShow(made),
    onSuccess: async ({ id }) => {
      await queries.invalidateQueries({ queryKey: ['shows'] });
      await go(`/rig/${id}/gear`);
    },
  });
  const exporting = useMutation({
    mutationFn: ({ id }: ShowSummary) => readFileOf(id),
    onSuccess: (file, { name: rig }) => download(fileName(rig, 'yunta.json'), file, 'application/json'),
  });
  const readFile = useMutation({
    mutationFn: (file: File) => file.text(),
    onSuccess: (text) => create.mutate({ kind: 'file', text }),
  });
  const remove = useMutation({
    mutationFn: ({ id }: ShowSummary) => removeShow(id),
    onSettled: () => Promise.all([again(), queries.invalidateQueries({ queryKey: ['deleted-shows'] })]),
  });
  const restore = useMutation({
    mutationFn: ({ id }: Pick<ShowSummary, 'id' | 'name'>) => restoreShow(id),
    onSuccess: () => remove.reset(),
    onSettled: () => Promise.all([again(), queries.invalidateQueries({ queryKey: ['deleted-shows'] })]),
  });
  // The copy plays the same songs; with a copy of its own, made on Set, it goes its way.
  const duplicate = useMutation({
    mutationFn: ({ id, name: of }: ShowSummary) =>
      createShow({
        kind: 'copy',
        of: id,
        name: freshName(
          `${of}, copy`.slice(0, 190),
          (rigs.data ?? []).map((rig) => rig.name),
        ),
        songbookOf: id,
      }),
    onSettled: () => queries.invalidateQueries({ queryKey: ['shows'] }),
  });
  const [name, setName] = useState('');
  const [starter, setStarter] = useState<StarterId | ''>('');
  const [songbookOf, setSongbookOf] = useState('');
  const [deleting, setDeleting] = useState<ShowSummary | null>(null);
  const books = songbooksOf(rigs.data ?? []);
  return (
    <main className="home">
      <h1 style={{ fontSize: 26 }}>Yunta</h1>
      <p className="soft">Plan a stage rig so that every song’s sounds come up right.</p>
      {rigs.data && rigs.data.length > 0 && <h2>Rigs</h2>}
      {rigs.error && <Refusal error={rigs.error} />}
      {exporting.error && <Refusal error={exporting.error} what={`“${exporting.variables.name}” was not exported.`} />}
      {duplicate.error && (
        <Refusal error={duplicate.error} what={`“${duplicate.variables.name}” was not duplicated.`} />
      )}
      {duplicate.data && (
        <Notice>
          {duplicate.data.name} is there. It plays the same songs: with a copy of its own, made on Set, it goes its way.
        </Notice>
      )}
      {remove.isSuccess && (
        <Notice onDismiss={() => remove.reset()}>
          {remove.variables.name} was deleted.{' '}
          <LinkButton onClick={() => restore.mutate(remove.variables)}>Undo: Delete {remove.variables.name}</LinkButton>
        </Notice>
      )}
      {restore.error && <Refusal error={restore.error} what={`“${restore.variables.name}” was not brought back.`} />}
      {remove.error && <Refusal error={remove.error} what={`“${remove.variables.name}” was not deleted.`} />}
      {rigs.data && rigs.data.length > 0 && (
        <DataTable className="sheet rigs">
          <thead>
            <tr>
              <th>Name</th>
              <th>Devices</th>
              <th>Sounds</th>
              <th>Songs</th>
              <th>Last changed</th>
              <th />
            </tr>
          </thead>
          <tbody>
            {rigs.data.map((rig) => (
              <tr key={rig.id}>
                <td style={{ padding: 8 }}>
                  <Link to={`/rig/${rig.id}/overview`}>
                    <b>{rig.name}</b>
                  </Link>
                </td>
                <td className="num">{rig.devices}</td>
                <td className="num">{rig.sounds}</td>
                <td>{sharing(rig, books)}</td>
                <td>{new Date(rig.changedAt).toLocaleString()}</td>
                <td style={{ textAlign: 'right' }}>
                  <LinkButton
                    aria-label={`Export ${rig.name}`}
                    disabled={exporting.isPending}
                    onClick={() => exporting.mutate(rig)}
                  >
                    Export
                  </LinkButton>{' '}
                  <LinkButton
                    aria-label={`Duplicate ${rig.name}`}
                    disabled={duplicate.isPending}
                    onClick={() => duplicate.mutate(rig)}
                  >
                    Duplicate
                  </LinkButton>{' '}
                  <LinkButton
                    aria-label={`Delete ${rig.name}`}
                    disabled={remove.isPending}
                    onClick={() => setDeleting(rig)}
                  >
                    Delete
                  </LinkButton>
                </td>
              </tr>
            ))}
          </tbody>
        </DataTable>
      )}
      {/* Shown with the list above it, so that nothing shifts under a hand. */}
      {!rigs.isPending && (
        <div className="start">
          <form
            className="sheet"
            onSubmit={(event) => {
              event.preventDefault();
              const songs = songbookOf === '' ? {} : { songbookOf };
              create.mutate(
                starter === ''
                  ? { kind: 'empty', name: name.trim() || 'New rig', ...songs }
                  : { kind: 'starter', starter, name: name.trim() || starterById(starter).name, ...songs },
              );
            }}
          >
            <h2>Start a rig</h2>
            <TextInput
              label="Name"
              value={name}
              onChange={(event) => setName(event.target.value)}
              placeholder="Winter tour"
              maxLength={200}
            />
            <Radio.Group label="Begin with" value={starter} onChange={(value) => setStarter(value as StarterId | '')}>
              <StarterChoices
                choices={[
                  { id: '', name: 'Nothing', says: 'An empty rig: type every piece yourself.' },
                  ...starters.slice(0, shownAtFirst),
                ]}
              />
              <Fold title={`${starters.length - shownAtFirst} more rigs to begin with`}>
                <StarterChoices choices={starters.slice(shownAtFirst)} />
              </Fold>
            </Radio.Group>
            {books.length > 0 && (
              <Select
                label="Songs"
                allowDeselect={false}
                value={songbookOf}
                onChange={(value) => setSongbookOf(value ?? '')}
                data={[
                  { value: '', label: 'Its own' },
                  ...books.map((book) => ({
                    value: book.rigs[0].id,
                    label: `Those of ${book.rigs.map((rig) => rig.name).join(' and ')}: a change goes to all`,
                  })),
                ]}
              />
            )}
            <Button type="submit" loading={create.isPending}>
              New rig
            </Button>
          </form>
          <div className="sheet">
            <h2>Look around first</h2>
            <p className="soft" style={{ margin: 0 }}>
              A guitarist on a river-boat tour: the four-cable rig, with a few honest mistakes in it, and the rig
              without an amp for the leg that flies.
            </p>
            <Button variant="default" onClick={() => create.mutate({ kind: 'demo', rig: 'combo' })}>
              Open a fresh demo
            </Button>
            <Button variant="default" onClick={() => create.mutate({ kind: 'demo', rig: 'fly' })}>
              Open the fly rig
            </Button>
          </div>
          <div className="sheet">
            <h2>Import</h2>
            <p className="soft" style={{ margin: 0 }}>
              A file that Yunta exported: rig and songbook in one.
            </p>
            <FileButton accept="application/json,.json" onChange={(file) => file && readFile.mutate(file)}>
              {(props) => (
                <Button variant="default" {...props}>
                  Import a file
                </Button>
              )}
            </FileButton>
          </div>
        </div>
      )}
      {create.error && <Refusal error={create.error} />}
      {readFile.error && <Refusal error={readFile.error} what="The file cannot be read." />}
      <DeletedRigs onRestore={(rig) => restore.mutate(rig)} />
      <Backups />
      <Confirm
        title={`Delete ${deleting?.name ?? 'this rig'}`}
        does="Delete the rig"
        open={deleting !== null}
        onConfirm={() => deleting && remove.mutate(deleting)}
        onClose={() => setDeleting(null)}
      >
        It goes with all its sounds. For thirty days it can be brought back from this page.
      </Confirm>
    </main>
  );
}

/** What was deleted lately, and can be brought back. */
function DeletedRigs({ onRestore }: { readonly onRestore: (rig: DeletedShow) => void }) {
  const deleted = useQuery({ queryKey: ['deleted-shows'], queryFn: listDeleted });
  if (!deleted.data || deleted.data.length === 0) return null;
  return (
    <Fold title={`Deleted lately (${deleted.data.length})`}>
      <DataTable label="Deleted rigs" columns={[{ head: 'Name' }, { head: 'Deleted' }, { head: '' }]}>
        {deleted.data.map((rig) => (
          <tr key={rig.id}>
            <td>{rig.name}</td>
            <td className="soft">{new Date(rig.deletedAt).toLocaleString()}</td>
            <td style={{ textAlign: 'right' }}>
              <LinkButton aria-label={`Bring back ${rig.name}`} onClick={() => onRestore(rig)}>
                Bring back
              </LinkButton>
            </td>
          </tr>
        ))}
      </DataTable>
    </Fold>
  );
}

/** The songbooks that are there, each with the rigs that play from it. */
function songbooksOf(
  rigs: readonly ShowSummary[],
): readonly { readonly id: string; readonly rigs: readonly ShowSummary[] }[] {
  const ids = [...new Set(rigs.map((rig) => rig.songbook))];
  return ids.map((id) => ({ id, rigs: rigs.filter((rig) => rig.songbook === id) }));
}

function sharing(rig: ShowSummary, books: ReturnType<typeof songbooksOf>): string {
  const others = books.find((book) => book.id === rig.songbook)?.rigs.filter((other) => other.id !== rig.id) ?? [];
  return others.length === 0 ? 'its own' : `shared with ${others.map((other) => other.name).join(', ')}`;
}

/** So many kinds of rig are shown at once; with an empty one they fill three rows. */
const shownAtFirst = 8;

function StarterChoices({
  choices,
}: {
  readonly choices: readonly { readonly id: string; readonly name: string; readonly says: string }[];
}) {
  return (
    <div className="starters">
      {choices.map(({ id, name, says }) => (
        <Radio
          key={id}
          size="xs"
          value={id}
          label={
            <>
              <b>{name}</b> <span className="soft">{says}</span>
            </>
          }
        />
      ))}
    </div>
  );
}
