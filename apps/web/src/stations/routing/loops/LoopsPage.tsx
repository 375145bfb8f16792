import { Button } from '@mantine/core';
import {
  allocationOf,
  commands,
  compileProblem,
  conventionOf,
  conventions,
  costOf,
  isAllowed,
  type Line,
  type NoLine,
  patchChange,
  planAsWired,
  type PlannedLine,
  plugLabel,
  switchersOf,
} from '@yunta/core';
import { useMemo, useState } from 'react';
import { useShow } from '../../../api/rig.tsx';
import { CellSelect } from '../../../ui/CellSelect.tsx';
import { Notice } from '../../../ui/Notice.tsx';
import { StationHead } from '../../../ui/StationHead.tsx';
import { AnswerSheet } from './AnswerSheet.tsx';
import { Concessions } from './Concessions.tsx';
import { Elsewhere } from './Elsewhere.tsx';
import { PieceTable } from './PieceTable.tsx';
import { useAnswer, useLine, usePlanned, useProblem } from './use-loop-plan.ts';
import './loops.css';

const asAsked = {};

/** Which piece gets a loop: what is wanted of each, what comes of it, and what anything else would cost. */
export function LoopsPage({ onClose }: { readonly onClose: () => void }) {
  const { show, wiring, run } = useShow();
  const [switcher, setSwitcher] = useState<string | undefined>(undefined);
  const switchers = switchersOf(wiring);
  const line = useLine(switcher);
  return (
    <>
      <StationHead
        name="Loops"
        startAt={['[data-wanted]', '[aria-label="Order that counts"]']}
        question="Which piece gets a loop, and what would anything else cost?"
      >
        {switchers.length > 1 && (
          <CellSelect
            bordered
            label="Loops of"
            value={switcher ?? switchers[0].device.id}
            choices={switchers.map(({ device }) => ({ value: device.id, label: device.name }))}
            onPick={setSwitcher}
          />
        )}
        <span className="soft">The order counts</span>
        <CellSelect
          bordered
          label="Order that counts"
          value={conventionOf(show.rig, 'order')}
          choices={conventions.order.map((side) => ({ value: side, label: side }))}
          onPick={(side) => run(commands.setConvention(show, 'order', side as never))}
        />
        <Button variant="default" onClick={onClose}>
          Back to the run
        </Button>
      </StationHead>
      {typeof line === 'string' ? <NoLineYet why={line} /> : <Plan line={line} />}
    </>
  );
}

function Plan({ line }: { readonly line: Line }) {
  const { show } = useShow();
  const problem = useProblem(show, line, asAsked);
  const { answer, stop } = useAnswer('plan', problem);
  const newest = usePlanned(show, line, problem, answer?.plan ?? null);
  // While the next plan is worked out, the one before stands: rows do not jump.
  const [last, setLast] = useState(newest);
  if (newest && newest !== last) setLast(newest);
  const planned = newest ?? (last && isSameLine(last.line, line) ? last : null);
  const [selected, setSelected] = useState<string | null>(null);
  const at = line.pieces.findIndex(({ id }) => id === selected);
  const asWired = planned && asWiredToday(planned);
  return (
    <>
      <MoreThanOneLine line={line} />
      <AnswerSheet answer={answer} planned={planned} isCurrent={newest !== null} asWired={asWired} onStop={stop} />
      <PieceTable line={line} planned={planned} selected={selected} onSelect={setSelected} />
      {planned && at >= 0 && (
        <Elsewhere key={selected} planned={planned} piece={at} onClose={() => setSelected(null)} />
      )}
      {planned && answer?.cost && answer.state !== 'working' && (
        <Concessions line={line} planned={planned} cost={answer.cost} />
      )}
    </>
  );
}

/** What is wired in a way that this page does not plan, and would go: said before anything is wired. */
function MoreThanOneLine({ line }: { readonly line: Line }) {
  const { show, wiring } = useShow();
  const gone = useMemo(() => {
    const problem = allocationOf(show, line);
    const compiled = compileProblem(problem);
    return compiled.ok ? patchChange(show, line, compiled.value, planAsWired(line, problem)).gone : [];
  }, [show, line]);
  if (gone.length === 0) return null;
  const cables = gone.map((id) => {
    const { tag, plugs } = show.rig.cables[id];
    return `${tag} (${plugs.map((plug) => plugLabel(wiring, plug)).join(' to ')})`;
  });
  return (
    <Notice>
      Not all of this is one line through one switcher: wiring a plan would also unplug {cables.join(', ')}. Want the
      pieces at these cables <i>as they are wired</i>, or wire them again afterwards.
    </Notice>
  );
}

const isSameLine = (a: Line, b: Line): boolean =>
  a.loops.length === b.loops.length &&
  a.pieces.length === b.pieces.length &&
  a.pieces.every(({ id }, i) => id === b.pieces[i].id);

/** What today's wiring costs, where it is one of the plans. */
function asWiredToday({ line, compiled }: PlannedLine) {
  const plan = planAsWired(line, compiled.source);
  const isPlan = plan.zones.every((zone, piece) => isAllowed(compiled, piece, zone, plan.by[piece]));
  return isPlan && line.pieces.some(({ now }) => now !== 'unwired') ? costOf(compiled, plan) : null;
}

const noLineWords: Record<NoLine, string> = {
  'no-switcher': 'There is no switcher with loops in this rig. Add one on Gear, and its loops are given out here.',
  'no-source': 'There is no instrument that the line could begin at. Add one on Gear.',
  'no-end': 'There is nothing that the line could end in. Add an amp, or a line to the desk, on Gear.',
};

const NoLineYet = ({ why }: { readonly why: NoLine }) => (
  <p className="sheet soft" style={{ margin: 0, padding: '12px 14px' }} role="status">
    {noLineWords[why]}
  </p>
);
