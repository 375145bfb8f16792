import { Button } from '@mantine/core';
import { useQuery } from '@tanstack/react-query';
import {
  inOrder,
  moveHeadings,
  type Move,
  movesBetween,
  movesSheet,
  sheetRows,
  type Show,
  writeRows,
} from '@yunta/core';
import { useDeferredValue, useMemo, useState } from 'react';
import { useSaved, useShow } from '../../../api/rig.tsx';
import { useServices } from '../../../api/services.tsx';
import { listRevisions } from '../../../api/shows.ts';
import { useSide } from './use-side.ts';
import { CellSelect } from '../../../ui/CellSelect.tsx';
import { DataTable } from '../../../ui/DataTable.tsx';
import { download, fileName } from '../../../ui/download.ts';
import { LinkButton } from '../../../ui/LinkButton.tsx';
import { Refusal } from '../../../ui/Refusal.tsx';

/** What hands do between two variants, or since a night that was kept: in the order in which it is done. */
export function Moves() {
  const { id } = useShow();
  const { base, variant } = useSaved();
  const revisions = useQuery({ queryKey: ['revisions', id], queryFn: () => listRevisions(id) });
  const choices = [
    { value: 'base', label: base.rig.name },
    ...inOrder(base.rig.variants ?? {}).map((each) => ({ value: `variant ${each.id}`, label: each.name })),
    ...(revisions.data ?? []).map((each) => ({ value: `revision ${each.id}`, label: `as kept: ${each.name}` })),
  ];
  const [from, setFrom] = useState('base');
  const [to, setTo] = useState<string | null>(null);
  const target = to ?? (variant === null ? 'base' : `variant ${variant}`);
  const before = useSide(from);
  const after = useSide(target);
  const nameOf = (value: string) => choices.find((choice) => choice.value === value)?.label ?? value;
  return (
    <section aria-label="Moves" style={{ marginTop: 14 }}>
      <div style={{ display: 'flex', alignItems: 'center', gap: 10, flexWrap: 'wrap' }}>
        <h2>Moves</h2>
        <span className="soft">from</span>
        <CellSelect bordered label="Moves from" value={from} choices={choices} onPick={setFrom} />
        <span className="soft">to</span>
        <CellSelect bordered label="Moves to" value={target} choices={choices} onPick={setTo} />
      </div>
      {before.error && <Refusal error={before.error} />}
      {after.error && <Refusal error={after.error} />}
      {before.show && after.show && (
        <MoveList from={before.show} to={after.show} about={`${nameOf(from)} to ${nameOf(target)}`} />
      )}
    </section>
  );
}

function MoveList({ from, to, about }: { readonly from: Show; readonly to: Show; readonly about: string }) {
  const [a, b] = [useDeferredValue(from), useDeferredValue(to)];
  const moves = useMemo(() => movesBetween(a, b), [a, b]);
  const { store } = useShow();
  const { pdf: pdfs } = useServices();
  const [failed, setFailed] = useState<Error | null>(null);
  const sheet = () => movesSheet(from, to, about);
  const print = async () => {
    setFailed(null);
    try {
      const date = new Date().toLocaleDateString(undefined, { dateStyle: 'medium' });
      const foot = { rig: to.rig.name, revision: store.get().revision, date };
      const made = await pdfs().print([{ kind: 'sheet', sheet: sheet() }], 'A4', foot);
      download(fileName(`${to.rig.name} moves`, 'pdf'), made as BlobPart, 'application/pdf');
    } catch (reason) {
      setFailed(reason instanceof Error ? reason : new Error(String(reason)));
    }
  };
  if (moves.length === 0) return <p className="soft">Nothing is moved between the two.</p>;
  const plugs = moves.filter(({ kind }) => kind === 'unplug' || kind === 'plug').length;
  return (
    <div className="sheet" style={{ marginTop: 6 }}>
      <p className="addline" style={{ margin: 0, alignItems: 'baseline' }}>
        <span style={{ flex: 1 }}>
          <b className="num">{moves.length}</b> {moves.length === 1 ? 'move' : 'moves'}, <b className="num">{plugs}</b>{' '}
          of them {plugs === 1 ? 'a plug' : 'plugs'}. Mute first; switch a valve amplifier off before its loudspeaker is
          unplugged.
        </span>
        <Button variant="default" size="compact-xs" onClick={() => void print()}>
          Print the moves
        </Button>
        <LinkButton
          onClick={() => download(fileName(`${to.rig.name} moves`, 'csv'), writeRows(sheetRows(sheet())), 'text/csv')}
        >
          CSV
        </LinkButton>
      </p>
      {failed && <Refusal error={failed} what="The PDF could not be made." />}
      <DataTable
        label="Moves in their order"
        columns={[{ head: '', width: 34 }, { head: 'Move' }, { head: '', width: 170 }]}
      >
        {moves.map((move, i) => (
          <MoveRow key={move.id} move={move} number={i + 1} />
        ))}
      </DataTable>
    </div>
  );
}

const MoveRow = ({ move, number }: { readonly move: Move; readonly number: number }) => (
  <tr>
    <td className="num soft">{number}</td>
    <td>{move.words}</td>
    <td className="soft">{moveHeadings[move.kind].toLowerCase()}</td>
  </tr>
);
