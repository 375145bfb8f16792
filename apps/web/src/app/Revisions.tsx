import { Button, TextInput } from '@mantine/core';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { stepsBetween } from '@yunta/core';
import type { NamedRevision } from '@yunta/contract';
import { type FormEvent, useState } from 'react';
import { useSaved, useShow } from '../api/rig.tsx';
import { removeRevision, keepRevision, listRevisions, readRevision } from '../api/shows.ts';
import { Refusal } from '../ui/Refusal.tsx';
import { LinkButton } from '../ui/LinkButton.tsx';
import { DataTable } from '../ui/DataTable.tsx';
import { Confirm } from '../ui/Confirm.tsx';

/** Names the rig as it is now, and brings a named revision back: an edit like any other, that undo takes back. */
export function Revisions({ onRestored }: { readonly onRestored: () => void }) {
  const { id, store } = useShow();
  const { saving, sharedWith } = useSaved();
  const queries = useQueryClient();
  const queryKey = ['revisions', id];
  const revisions = useQuery({ queryKey, queryFn: () => listRevisions(id) });
  const again = () => queries.invalidateQueries({ queryKey });
  const [name, setName] = useState('');
  const [asking, setAsking] = useState<{
    readonly what: 'restore' | 'delete';
    readonly revision: NamedRevision;
  } | null>(null);
  const keep = useMutation({
    mutationFn: (called: string) => keepRevision(id, called),
    onSuccess: () => setName(''),
    onSettled: again,
  });
  const remove = useMutation({
    mutationFn: (revision: NamedRevision) => removeRevision(id, revision.id),
    onSettled: again,
  });
  const restore = useMutation({
    mutationFn: (revision: NamedRevision) => readRevision(id, revision.id),
    onSuccess: ({ rig, songbook }, revision) => {
      const steps = stepsBetween(store.get().base, { rig, songbook });
      if (steps.length === 0) store.tell(`The rig is as it was in “${revision.name}”.`);
      else if (store.runOnBase({ command: { name: 'restore-revision', facts: { name: revision.name } }, steps }))
        store.tell(`Restored “${revision.name}”. Undo takes it back.`);
      onRestored();
    },
  });
  const submit = (event: FormEvent) => {
    event.preventDefault();
    if (name.trim() !== '') keep.mutate(name.trim());
  };
  const failed = revisions.error ?? keep.error ?? remove.error ?? restore.error;
  return (
    <section aria-label="Named revisions">
      <form onSubmit={submit} style={{ display: 'flex', gap: 8, alignItems: 'flex-end' }}>
        <TextInput
          label="Name the rig as it is now"
          size="xs"
          value={name}
          onChange={(event) => setName(event.target.value)}
          placeholder="As rehearsed in May"
          maxLength={200}
          style={{ flex: 1 }}
        />
        <Button
          type="submit"
          size="xs"
          variant="default"
          loading={keep.isPending}
          disabled={name.trim() === '' || saving !== 'saved'}
        >
          Keep
        </Button>
      </form>
      {failed && <Refusal error={failed} />}
      {revisions.data && revisions.data.length > 0 && (
        <DataTable style={{ marginTop: 8 }}>
          <thead>
            <tr>
              <th>Revision</th>
              <th>Name</th>
              <th>When</th>
              <th />
            </tr>
          </thead>
          <tbody>
            {revisions.data.map((revision) => (
              <tr key={revision.id}>
                <td className="num">{revision.revision}</td>
                <td>{revision.name}</td>
                <td className="soft">{new Date(revision.at).toLocaleString()}</td>
                <td style={{ textAlign: 'right', whiteSpace: 'nowrap' }}>
                  <LinkButton
                    aria-label={`Restore ${revision.name}`}
                    disabled={restore.isPending}
                    onClick={() =>
                      sharedWith.length === 0 ? restore.mutate(revision) : setAsking({ what: 'restore', revision })
                    }
                  >
                    Restore
                  </LinkButton>{' '}
                  <LinkButton
                    aria-label={`Delete the revision ${revision.name}`}
                    disabled={remove.isPending}
                    onClick={() => setAsking({ what: 'delete', revision })}
                  >
                    Delete
                  </LinkButton>
                </td>
              </tr>
            ))}
          </tbody>
        </DataTable>
      )}
      <Confirm
        title={asking?.what === 'restore' ? `Restore ${asking.revision.name}` : `Delete ${asking?.revision.name ?? ''}`}
        does={asking?.what === 'restore' ? 'Restore' : 'Delete the revision'}
        open={asking !== null}
        onConfirm={() => asking && (asking.what === 'restore' ? restore : remove).mutate(asking.revision)}
        onClose={() => setAsking(null)}
      >
        {asking?.what === 'restore'
          ? `The songs, shared with ${sharedWith.join(' and ')}, go back too.`
          : 'Only what was kept under this name goes. The rig as it is now stays.'}
      </Confirm>
    </section>
  );
}
