import { Button, FileButton } from '@mantine/core';
import type { ArrivedTypes } from '@yunta/contract';
import { type DeviceType, writeTypes } from '@yunta/core';
import { useRef, useState } from 'react';
import { useLibrary, useLibraryEdits } from '../../api/library.ts';
import { useShow } from '../../api/rig.tsx';
import { Confirm } from '../../ui/Confirm.tsx';
import { DataTable } from '../../ui/DataTable.tsx';
import { download, fileName } from '../../ui/download.ts';
import { Fold } from '../../ui/Fold.tsx';
import { LinkButton } from '../../ui/LinkButton.tsx';
import { Refusal } from '../../ui/Refusal.tsx';

/** The types that people made: for every rig here, and for others as a file. */
export function OwnTypes() {
  const { own, error } = useLibrary();
  const { bring, remove } = useLibraryEdits();
  const { show, store } = useShow();
  const reset = useRef<() => void>(null);
  const [removing, setRemoving] = useState<DeviceType | null>(null);
  const read = async (file: File | null) => {
    if (!file) return;
    reset.current?.();
    bring.mutate(await file.text(), { onSuccess: (arrived) => store.tell(`${file.name}: ${arrivedWords(arrived)}`) });
  };
  const usedBy = (type: DeviceType): number =>
    Object.values(show.rig.devices).filter((device) => device.type.id === type.id).length;
  const types = own.map(({ type }) => type);
  return (
    <Fold title={`Types of your own (${own.length})`}>
      <div className="sheet" style={{ marginTop: 6 }}>
        <div className="addline">
          <span className="grow soft">
            Type its name above to add one to this rig. A rig keeps a copy of what it uses: what is changed here changes
            no rig until its piece takes it.
          </span>
          <FileButton resetRef={reset} accept=".json,application/json" onChange={(file) => void read(file)}>
            {(props) => (
              <Button variant="default" {...props}>
                Import types
              </Button>
            )}
          </FileButton>
          {types.length > 0 && (
            <Button variant="default" onClick={() => save('own types', types)}>
              Export all
            </Button>
          )}
        </div>
        {error && <Refusal error={error} what="Your own types could not be read." />}
        {bring.error && <Refusal error={bring.error} what="The file was refused whole; nothing was changed." />}
        {remove.error && <Refusal error={remove.error} what="Nothing was removed." />}
        {own.length > 0 && (
          <DataTable
            label="Types of your own"
            columns={[
              { head: 'Name' },
              { head: 'Revision' },
              { head: 'Changed' },
              { head: 'In this rig' },
              { head: '' },
            ]}
          >
            {own.map(({ type, at }) => (
              <tr key={type.id}>
                <td style={{ padding: 8 }}>{type.name}</td>
                <td className="num">{type.revision}</td>
                <td className="soft">{new Date(at).toLocaleString()}</td>
                <td className="num">{usedBy(type)}</td>
                <td style={{ textAlign: 'right' }}>
                  <LinkButton aria-label={`Export ${type.name}`} onClick={() => save(type.name, [type])}>
                    Export
                  </LinkButton>{' '}
                  <LinkButton aria-label={`Remove ${type.name} from your own types`} onClick={() => setRemoving(type)}>
                    Remove
                  </LinkButton>
                </td>
              </tr>
            ))}
          </DataTable>
        )}
        <Confirm
          title={`Remove ${removing?.name ?? 'this type'} from your own types`}
          does="Remove the type"
          open={removing !== null}
          onConfirm={() => removing && remove.mutate(removing.id)}
          onClose={() => setRemoving(null)}
        >
          Pieces in rigs stay as they are. Export it first if in doubt.
        </Confirm>
      </div>
    </Fold>
  );
}

const save = (name: string, types: readonly DeviceType[]): void =>
  download(fileName(`${name} types`, 'json'), writeTypes(types), 'application/json');

const arrivalWords: Readonly<Record<keyof ArrivedTypes, string>> = {
  added: 'new',
  newer: 'in a later revision',
  same: 'there already',
  another: 'added beside another of its id',
};

const arrivedWords = (arrived: ArrivedTypes): string =>
  (Object.keys(arrivalWords) as (keyof ArrivedTypes)[])
    .filter((arrival) => arrived[arrival] > 0)
    .map((arrival) => `${arrived[arrival]} ${arrivalWords[arrival]}`)
    .join(', ') || 'it holds no type';
