import { Button } from '@mantine/core';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { type BackupFile, type BackupKind, backupsKept } from '@yunta/contract';
import { useState } from 'react';
import { listBackups, makeBackup, readBackup, restoreBackup } from '../api/shows.ts';
import { browserWindows, everyRig } from '../api/windows.ts';
import { download } from '../ui/download.ts';
import { Refusal } from '../ui/Refusal.tsx';
import { LinkButton } from '../ui/LinkButton.tsx';
import { DataTable } from '../ui/DataTable.tsx';
import { Confirm } from '../ui/Confirm.tsx';
import { Notice } from '../ui/Notice.tsx';

const kindWords: Readonly<Record<BackupKind, string>> = {
  daily: 'daily',
  manual: 'by hand',
  'before-upgrade': 'before an upgrade',
  'before-restore': 'before a restore',
};
const shownAtFirst = 5;

/** Copies of everything, made every day; each can be downloaded, and restored whole. */
export function Backups() {
  const queries = useQueryClient();
  const backups = useQuery({ queryKey: ['backups'], queryFn: listBackups });
  const [all, setAll] = useState(false);
  const [asking, setAsking] = useState<{ readonly file: BackupFile; readonly when: string } | null>(null);
  const make = useMutation({
    mutationFn: makeBackup,
    onSettled: () => queries.invalidateQueries({ queryKey: ['backups'] }),
  });
  const fetching = useMutation({
    mutationFn: ({ name }: BackupFile) => readBackup(name),
    onSuccess: (bytes, { name }) => download(name, bytes, 'application/gzip'),
  });
  const restore = useMutation({
    mutationFn: ({ name }: BackupFile) => restoreBackup(name),
    onSuccess: () => browserWindows().announce(everyRig),
    onSettled: () => queries.invalidateQueries(),
  });
  const files = backups.data ?? [];
  return (
    <section aria-label="Backups">
      <div className="sectionhead">
        <h2>Backups</h2>
        <span className="tools">
          <Button size="compact-sm" variant="default" loading={make.isPending} onClick={() => make.mutate()}>
            Back up now
          </Button>
        </span>
      </div>
      <p className="soft" style={{ marginTop: 0 }}>
        All rigs, songbooks, your own types, history and ticks in one file. One is made every day that something
        changed; the newest {backupsKept.daily} are kept beside the database.
      </p>
      {backups.error && <Refusal error={backups.error} />}
      {make.error && <Refusal error={make.error} what="No backup was made." />}
      {fetching.error && <Refusal error={fetching.error} what="Nothing was downloaded." />}
      {restore.error && <Refusal error={restore.error} what="Nothing was restored; all is as it was." />}
      {restore.data && (
        <Notice>
          Restored: {restore.data.rigs} {restore.data.rigs === 1 ? 'rig' : 'rigs'}, {restore.data.edits} edits of
          history. {restore.data.before !== null && 'What was there before is in the newest backup.'}
        </Notice>
      )}
      {backups.data && files.length === 0 && <p className="soft">None yet.</p>}
      {files.length > 0 && (
        <DataTable className="sheet">
          <thead>
            <tr>
              <th>Made</th>
              <th>Why</th>
              <th>Size</th>
              <th />
            </tr>
          </thead>
          <tbody>
            {files.slice(0, all ? files.length : shownAtFirst).map((file) => {
              const when = new Date(file.at).toLocaleString();
              return (
                <tr key={file.name}>
                  <td style={{ padding: 8 }}>{when}</td>
                  <td>{kindWords[file.kind]}</td>
                  <td className="num">{Math.max(1, Math.round(file.bytes / 1000))} kB</td>
                  <td style={{ textAlign: 'right' }}>
                    <LinkButton
                      aria-label={`Download the backup of ${when}`}
                      disabled={fetching.isPending}
                      onClick={() => fetching.mutate(file)}
                    >
                      Download
                    </LinkButton>{' '}
                    <LinkButton
                      aria-label={`Restore the backup of ${when}`}
                      disabled={restore.isPending}
                      onClick={() => setAsking({ file, when })}
                    >
                      Restore
                    </LinkButton>
                  </td>
                </tr>
              );
            })}
          </tbody>
        </DataTable>
      )}
      {!all && files.length > shownAtFirst && (
        <LinkButton onClick={() => setAll(true)}>Show all {files.length}</LinkButton>
      )}
      <Confirm
        title={`Restore the backup of ${asking?.when ?? ''}`}
        does="Bring everything back"
        open={asking !== null}
        onConfirm={() => asking && restore.mutate(asking.file)}
        onClose={() => setAsking(null)}
      >
        All rigs, songs, history and ticks become what they were then. What is there now is backed up first.
      </Confirm>
    </section>
  );
}
