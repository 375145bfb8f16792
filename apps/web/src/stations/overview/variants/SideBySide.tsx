import { useQuery } from '@tanstack/react-query';
import { inOrder } from '@yunta/core';
import { useState } from 'react';
import { useSaved, useShow } from '../../../api/rig.tsx';
import { listRevisions, listShows } from '../../../api/shows.ts';
import { CellSelect } from '../../../ui/CellSelect.tsx';
import { Refusal } from '../../../ui/Refusal.tsx';
import { FigureTable } from '../../figures/FigureTable.tsx';
import { useSide } from './use-side.ts';

/** Two rigs, or two nights of one: what each has and what is found in it, figure by figure. */
export function SideBySide() {
  const { id } = useShow();
  const { base, variant } = useSaved();
  const revisions = useQuery({ queryKey: ['revisions', id], queryFn: () => listRevisions(id) });
  const rigs = useQuery({ queryKey: ['shows'], queryFn: listShows });
  const choices = [
    { value: 'base', label: base.rig.name },
    ...inOrder(base.rig.variants ?? {}).map((each) => ({ value: `variant ${each.id}`, label: each.name })),
    ...(revisions.data ?? []).map((each) => ({ value: `revision ${each.id}`, label: `as kept: ${each.name}` })),
    ...(rigs.data ?? [])
      .filter((rig) => rig.id !== id)
      .map((rig) => ({ value: `rig ${rig.id}`, label: `another rig: ${rig.name}` })),
  ];
  const [left, setLeft] = useState('base');
  const [right, setRight] = useState<string | null>(null);
  const chosen = right ?? (variant === null ? (choices.at(1)?.value ?? 'base') : `variant ${variant}`);
  const [a, b] = [useSide(left), useSide(chosen)];
  const nameOf = (value: string) => choices.find((choice) => choice.value === value)?.label ?? value;
  return (
    <section aria-label="Side by side" style={{ marginTop: 14 }}>
      <div style={{ display: 'flex', alignItems: 'center', gap: 10, flexWrap: 'wrap' }}>
        <h2>Side by side</h2>
        <CellSelect bordered label="One side" value={left} choices={choices} onPick={setLeft} />
        <span className="soft">and</span>
        <CellSelect bordered label="The other side" value={chosen} choices={choices} onPick={setRight} />
      </div>
      {a.error && <Refusal error={a.error} />}
      {b.error && <Refusal error={b.error} />}
      {a.show && b.show && <FigureTable shows={[a.show, b.show]} names={[nameOf(left), nameOf(chosen)]} />}
    </section>
  );
}
