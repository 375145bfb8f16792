import { Modal } from '@mantine/core';
import { useQuery } from '@tanstack/react-query';
import { describeCommand } from '@yunta/core';
import { useSaved, useShow } from '../api/rig.tsx';
import { readHistory } from '../api/shows.ts';
import { Revisions } from './Revisions.tsx';
import { DataTable } from '../ui/DataTable.tsx';

/** Revisions with a name, and every edit that the server has taken, newest first. */
export function History({ open, onClose }: { readonly open: boolean; readonly onClose: () => void }) {
  const { id } = useShow();
  const { revision } = useSaved();
  const history = useQuery({ queryKey: ['history', id, revision], queryFn: () => readHistory(id), enabled: open });
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
      {history.error && (
        <div className="refusal" role="alert">
          {history.error.message}
        </div>
      )}
      {history.isPending && <p className="soft">Reading …</p>}
      {history.data?.length === 0 && <p className="soft">No edit yet: the rig is as it was made.</p>}
      {history.data && history.data.length > 0 && (
        <DataTable>
          <thead>
            <tr>
              <th>Revision</th>
              <th>What</th>
              <th>When</th>
            </tr>
          </thead>
          <tbody>
            {history.data.map((entry) => (
              <tr key={entry.revision}>
                <td className="num">{entry.revision}</td>
                <td>{describeCommand(entry.command)}</td>
                <td className="soft">{new Date(entry.at).toLocaleString()}</td>
              </tr>
            ))}
          </tbody>
        </DataTable>
      )}
      {history.data?.length === 500 && <p className="soft">The last 500 are shown.</p>}
    </Modal>
  );
}
