import { Button, Modal } from '@mantine/core';
import { useQuery } from '@tanstack/react-query';
import { describeCommand, stepsBetween } from '@yunta/core';
import { useState } from 'react';
import { useSaved, useShow } from '../api/rig.tsx';
import { readHistory, readPast } from '../api/shows.ts';
import { DataTable } from '../ui/DataTable.tsx';
import { LinkButton } from '../ui/LinkButton.tsx';
import { Refusal } from '../ui/Refusal.tsx';
import { changeWords } from '../ui/change-words.ts';
import { Revisions } from './Revisions.tsx';

/** Revisions with a name, and every edit that the server has taken, newest first; any of them can be gone back to. */
export function History({ open, onClose }: { readonly open: boolean; readonly onClose: () => void }) {
  const { id } = useShow();
  const { revision } = useSaved();
  const history = useQuery({ queryKey: ['history', id, revision], queryFn: () => readHistory(id), enabled: open });
  const [looked, setLooked] = useState<number | null>(null);
  return (
    <Modal
      opened={open}
      onClose={onClose}
      title="History of this rig"
      size="lg"
      shadow="none"
      closeButtonProps={{ 'aria-label': 'Close' }}
    >
      {open && <Revisions onRestored={onClose} />}
      <h3 style={{ margin: '16px 0 4px' }}>Every edit</h3>
      {history.error && <Refusal error={history.error} />}
      {history.isPending && <p className="soft">Reading …</p>}
      {history.data?.length === 0 && <p className="soft">No edit yet: the rig is as it was made.</p>}
      {history.data && history.data.length > 0 && (
        <DataTable
          label="Every edit"
          columns={[{ head: 'Revision', width: 70 }, { head: 'What' }, { head: 'When', width: 170 }, { head: '' }]}
        >
          {history.data.map((entry) => (
            <tr key={entry.revision} aria-selected={looked === entry.revision}>
              <td className="num">{entry.revision}</td>
              <td>
                {describeCommand(entry.command)}
                {looked === entry.revision && <Past revision={entry.revision} onRestored={onClose} />}
              </td>
              <td className="soft">{new Date(entry.at).toLocaleString()}</td>
              <td>
                {entry.revision < revision && (
                  <LinkButton
                    aria-label={`Go back to revision ${entry.revision}`}
                    aria-expanded={looked === entry.revision}
                    onClick={() => setLooked(looked === entry.revision ? null : entry.revision)}
                  >
                    Go back
                  </LinkButton>
                )}
              </td>
            </tr>
          ))}
        </DataTable>
      )}
      {history.data?.length === 500 && <p className="soft">The last 500 are shown.</p>}
    </Modal>
  );
}

/** The rig as it was after an edit: what going back to it would change, and going back as one edit. */
function Past({ revision, onRestored }: { readonly revision: number; readonly onRestored: () => void }) {
  const { id, store } = useShow();
  const { base } = useSaved();
  const past = useQuery({ queryKey: ['past', id, revision], queryFn: () => readPast(id, revision) });
  if (past.error) return <Refusal error={past.error} what="This revision cannot be read." />;
  if (!past.data) return <p className="soft">Reading …</p>;
  const { rig, songbook, songsOfToday } = past.data;
  const steps = stepsBetween(base, { rig, songbook });
  const restore = () => {
    if (store.runOnBase({ command: { name: 'restore-revision', facts: { name: String(revision) } }, steps })) {
      store.tell(`The rig is as it was at revision ${revision}. Undo takes it back.`);
      onRestored();
    }
  };
  return (
    <div className="soft" style={{ padding: '4px 0 6px' }}>
      <div>{steps.length === 0 ? 'The rig is as it was then.' : `Going back changes ${changeWords(steps)}.`}</div>
      {songsOfToday && <div>The songs stay as they are: another rig that shares them has changed them since.</div>}
      {steps.length > 0 && (
        <Button size="compact-xs" mt={4} onClick={restore}>
          Go back to revision {revision}
        </Button>
      )}
    </div>
  );
}
