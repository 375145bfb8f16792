import { Button } from '@mantine/core';
import { takeType } from '@yunta/core';
import { useLibrary, useLibraryEdits } from '../../api/library.ts';
import { useShow } from '../../api/rig.tsx';
import { isOwn, ownId } from './own-id.ts';

/** Keeps what the device is now among one's own types, as a new one or as the next revision. */
export function KeepButton({ id }: { readonly id: string }) {
  const { show, run, store } = useShow();
  const { own } = useLibrary();
  const { keep } = useLibraryEdits();
  const { type, name } = show.rig.devices[id];
  const kept = own.find((each) => each.type.id === type.id)?.type;
  const press = () => {
    // A generic type keeps its id and its name for itself.
    const sent = isOwn(type.id) ? type : { ...type, id: ownId(), revision: 1, name };
    keep.mutate(
      // Made from the revision that the piece has: where the library has a later one, that is told, not overwritten.
      { type: sent, base: kept ? type.revision : null },
      {
        onSuccess: (now) => {
          run(takeType(show, id, now));
          store.tell(`${now.name} is kept among your own types, as revision ${now.revision}.`);
        },
        onError: ({ message }) => store.refuse(`The type was not kept. ${message}`),
      },
    );
  };
  return (
    <Button variant="default" loading={keep.isPending} onClick={press}>
      {kept ? `Keep as revision ${type.revision + 1} of ${kept.name}` : 'Keep as a type of your own'}
    </Button>
  );
}
