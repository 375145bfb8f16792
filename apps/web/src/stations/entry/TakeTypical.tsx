import { inOrder, takeTypical, typicalFactsFor } from '@yunta/core';
import { useLibrary } from '../../api/library.ts';
import { useShow } from '../../api/rig.tsx';
import { LinkButton } from '../../ui/LinkButton.tsx';

/** For pieces from before anybody asked for it: what is typical of their types, with one press. */
export function TakeTypical() {
  const { show, run } = useShow();
  const { entries } = useLibrary();
  const facts = typicalFactsFor(inOrder(show.rig.devices), entries);
  if (facts.length === 0) return null;
  return (
    <LinkButton
      title="What they need of power and how large they are; each to be checked in its own papers"
      onClick={() => run(takeTypical(show, facts))}
    >
      Take typical values for {facts.length} {facts.length === 1 ? 'piece' : 'pieces'}
    </LinkButton>
  );
}
