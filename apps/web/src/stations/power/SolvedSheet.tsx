import { Button } from '@mantine/core';
import {
  cureLeft,
  cureWords,
  describeProblem,
  givePower,
  planChanges,
  type PowerPlan,
  supplyCostWords,
  type SupplyProgress,
} from '@yunta/core';
import { useMemo } from 'react';
import { useShow } from '../../api/rig.tsx';
import { LinkButton } from '../../ui/LinkButton.tsx';
import type { Solved } from './use-solved.ts';

const looks = {
  outputs: 'Giving out the outputs',
  conflict: 'Not all can have power: looking for the smallest set that conflicts',
  cures: 'Trying what would help',
} as const;

/** What the solver found, why not all have power where they do not, and the one press that wires it so. */
export function SolvedSheet({
  solved,
  onStop,
  onClose,
}: {
  readonly solved: Solved;
  readonly onStop: () => void;
  readonly onClose: () => void;
}) {
  return (
    <section className="sheet powersolved" aria-label="What Solve found">
      {solved.is === 'working' && (
        <p role="status">
          {looks[solved.step]} … <span className="soft">{solved.found?.cost ? soFar(solved.found) : ''}</span>{' '}
          <LinkButton onClick={onStop}>Stop looking</LinkButton>
        </p>
      )}
      {solved.is === 'refused' && (
        <p role="status">
          This cannot be solved as it is entered: {solved.problems.map(describeProblem).join(' ')}{' '}
          <LinkButton onClick={onClose}>Close</LinkButton>
        </p>
      )}
      {solved.is === 'solved' && <Found plan={solved.plan} wasStopped={solved.wasStopped} onClose={onClose} />}
    </section>
  );
}

const soFar = ({ cost }: SupplyProgress): string =>
  cost ? `so far ${cost.unpowered} without power; ${supplyCostWords(cost)}` : '';

function Found({
  plan,
  wasStopped,
  onClose,
}: {
  readonly plan: PowerPlan;
  readonly wasStopped: boolean;
  readonly onClose: () => void;
}) {
  const { show, run } = useShow();
  const { found, problem } = plan;
  const command = useMemo(
    () => (found.best ? givePower(show, problem, found.best) : null),
    [show, problem, found.best],
  );
  const { cost } = found;
  if (!cost)
    return (
      <p role="status">
        What is held contradicts itself: no plan leaves all of it where it is. Let something go that is held.{' '}
        <LinkButton onClick={onClose}>Close</LinkButton>
      </p>
    );
  const without = found.best!.seats.flatMap((seat, l) => (seat === 'unpowered' ? [problem.loads[l].name] : []));
  return (
    <>
      <p role="status">
        <b>
          {without.length === 0
            ? `All ${problem.loads.length} pieces can have power.`
            : `${without.length} of ${problem.loads.length} pieces ${without.length === 1 ? 'stays' : 'stay'} without power.`}
        </b>{' '}
        {supplyCostWords(cost)}. <span className="soft">{provedWords(found, wasStopped)}</span>
      </p>
      <p>
        {command ? (
          <Button size="compact-sm" data-autofocus onClick={() => run(command)}>
            Wire it so
          </Button>
        ) : (
          <span className="soft">It is wired so.</span>
        )}{' '}
        <LinkButton onClick={onClose}>Close</LinkButton>
      </p>
      {command && <Changes plan={plan} />}
      {without.length > 0 && <Why plan={plan} without={without} />}
    </>
  );
}

/** Piece by piece what would hang elsewhere than now. */
function Changes({ plan: { problem, found } }: { readonly plan: PowerPlan }) {
  const { show } = useShow();
  const changes = planChanges(show.rig, problem, found.best!);
  if (changes.length === 0) return <p className="soft">Every piece stays where it is; leads or voltages change.</p>;
  return (
    <ul aria-label="What changes" className="powerchanges">
      {changes.map(({ device, to, now }) => (
        <li key={device}>
          {show.rig.devices[device].name}: {to} <span className="soft">(now {now})</span>
        </li>
      ))}
    </ul>
  );
}

function provedWords({ proved, atLeast }: SupplyProgress, wasStopped: boolean): string {
  if (proved >= 7) return 'No plan is better.';
  const why = wasStopped ? 'Stopped' : 'Out of time';
  if (proved === 0) return `${why}: at least ${atLeast ?? 0} stay without power, whatever one does.`;
  return `${why}: that no fewer stay without power is proved, the rest is the best met so far.`;
}

function Why({ plan, without }: { readonly plan: PowerPlan; readonly without: readonly string[] }) {
  const { show } = useShow();
  const name = (id: string): string => show.rig.devices[id]?.name ?? id;
  const { conflict, cures } = plan;
  return (
    <div className="powerwhy">
      <p>Without power in this plan: {without.map(name).join(', ')}.</p>
      {conflict && (
        <p>
          {conflict.devices.length === 1
            ? `${name(conflict.devices[0])} alone finds no output that it could run on`
            : `${conflict.devices.map(name).join(', ')} cannot all have power, whatever becomes of the others`}
          <span className="soft">
            {conflict.isSmallest ? ': no smaller set conflicts.' : '; a smaller set may conflict, too.'}
          </span>
        </p>
      )}
      {cures.length > 0 && (
        <>
          <h3>What would help, each tried</h3>
          <ul aria-label="What would help">
            {cures.map((tried) => (
              <li key={JSON.stringify(tried.cure)}>
                {cureWords(show.rig, tried.cure)}: <span className="soft">{cureLeft(tried)}.</span>
              </li>
            ))}
          </ul>
        </>
      )}
    </div>
  );
}
