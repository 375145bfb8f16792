import {
  type Changed,
  costDifference,
  type Line,
  type PlanCost,
  type PlannedLine,
  commands,
  conventionOf,
  lengthLabel,
  patchChange,
  type PatchChange,
  type Show,
} from '@yunta/core';
import { useQuery } from '@tanstack/react-query';
import { useMemo } from 'react';
import { useShow } from '../../../api/rig.tsx';
import { useServices } from '../../../api/services.tsx';
import { DataTable } from '../../../ui/DataTable.tsx';
import { LinkButton } from '../../../ui/LinkButton.tsx';
import { useAnswer, usePlanned, useProblem } from './use-loop-plan.ts';

interface Rung {
  readonly id: string;
  readonly words: string;
  readonly changed: Changed;
  /** What makes it so, where an edit does. */
  readonly take?: { readonly does: string; readonly act: () => void };
}

/** What could be given up or bought, and what that would change: one rung after the other. */
export function Concessions({
  line,
  planned,
  cost,
}: {
  readonly line: Line;
  readonly planned: PlannedLine;
  readonly cost: PlanCost;
}) {
  const { show, run } = useShow();
  const isFrozen = conventionOf(show.rig, 'order') === 'as it is wired';
  const rungs = useMemo(
    (): readonly Rung[] => [
      { id: 'one-more', words: 'With one loop more', changed: { loops: line.loops.length + 1 } },
      { id: 'two-more', words: 'With two loops more', changed: { loops: line.loops.length + 2 } },
      ...(line.loops.length > 1
        ? [{ id: 'one-less', words: 'With one loop fewer', changed: { loops: line.loops.length - 1 } }]
        : []),
      { id: 'no-foot', words: 'Without a foot', changed: { withoutFoot: true } },
      { id: 'left-on', words: 'If every piece may be left on', changed: { leftOn: true } },
      {
        id: 'other-order',
        words: isFrozen ? 'If the order counts as it is heard' : 'If the line keeps its order as it is wired',
        changed: { isFrozen: !isFrozen },
        take: {
          does: isFrozen ? 'Let heard order count' : 'Keep the line',
          act: () => run(commands.setConvention(show, 'order', isFrozen ? 'as it is heard' : 'as it is wired')),
        },
      },
    ],
    [line, isFrozen, show, run],
  );
  return (
    <section aria-label="What anything else would cost">
      <div className="sectionhead">
        <h2>Give up, or buy</h2>
        <span className="soft">
          <FewestLoops planned={planned} />
        </span>
      </div>
      <div className="sheet">
        <DataTable
          label="What anything else would cost"
          columns={[
            { head: 'What if' },
            { head: 'Against the plan' },
            { head: 'Sounds lost', width: 90 },
            { head: 'Presses by foot', width: 110 },
            { head: 'Cables', width: 70 },
            { head: 'Plugs moved', width: 100 },
            { head: 'Cable', width: 150 },
            { head: '', width: 140 },
          ]}
        >
          {rungs.map((rung) => (
            <RungRow key={rung.id} rung={rung} line={line} cost={cost} />
          ))}
        </DataTable>
      </div>
    </section>
  );
}

function RungRow({ rung, line, cost }: { readonly rung: Rung; readonly line: Line; readonly cost: PlanCost }) {
  const { show } = useShow();
  const problem = useProblem(show, line, rung.changed);
  const { answer } = useAnswer(`rung ${rung.id}`, problem);
  const found = answer?.state === 'working' ? null : answer;
  // With other loops than there are it cannot be wired yet.
  const planned = usePlanned(show, line, rung.changed.loops === undefined ? problem : null, found?.plan ?? null);
  const change = useMemo(
    () => planned && patchChange(planned.show, planned.line, planned.compiled, planned.plan),
    [planned],
  );
  const difference = found?.cost ? costDifference(cost, found.cost) : found ? 'no plan is allowed' : '';
  return (
    <tr>
      <td>{rung.words}</td>
      <td className={difference === 'nothing' ? 'soft' : undefined}>
        {difference === 'nothing' ? 'the same' : difference}
      </td>
      <td className="num">{found?.cost?.soundsLost}</td>
      <td className="num">{found?.cost?.footActions}</td>
      <td className="num">{found?.cost?.cables}</td>
      <td className="num">{change?.plugs}</td>
      <td className="num">{change && cableWords(show, change)}</td>
      <td style={{ textAlign: 'right' }}>
        {rung.take && found?.cost && difference !== 'nothing' && (
          <LinkButton onClick={rung.take.act}>{rung.take.does}</LinkButton>
        )}
      </td>
    </tr>
  );
}

/** Metres of the cables that are kept, as far as they are known, and how many are new. */
function cableWords({ rig }: Show, { stays, moved, added }: PatchChange): string {
  const kept = [...stays, ...moved.map(({ cable }) => cable)].map((id) => rig.cables[id].length);
  const metres = kept.reduce<number>((sum, length) => sum + (length ?? 0), 0);
  return [
    ...(metres > 0 ? [`${lengthLabel(Math.round(metres * 100) / 100, rig.settings.lengthUnit)} kept`] : []),
    ...(added.length > 0 ? [`${added.length} new`] : []),
  ].join(', ');
}

/** How many loops would be enough for everything. */
function FewestLoops({ planned }: { readonly planned: PlannedLine }) {
  const { plan } = useServices();
  const { source } = planned.compiled;
  const key = useMemo(() => JSON.stringify(source), [source]);
  const { data } = useQuery({
    queryKey: ['fewest-loops', key],
    queryFn: async () => ({ loops: await plan().fewestLoops('fewest', source) }),
    staleTime: Infinity,
    gcTime: 60_000,
  });
  if (!data) return null;
  const { loops } = data;
  return (
    <>
      {loops === null
        ? 'No number of loops plays every sound with every piece and without a foot.'
        : `${loops} ${loops === 1 ? 'loop is' : 'loops are'} enough for every sound with every piece and without a foot.`}
    </>
  );
}
