import { Button } from '@mantine/core';
import {
  costDifference,
  judgePlan,
  lostWords,
  movesBetween,
  patchChange,
  type PlanCost,
  type PlannedLine,
  plannedSounds,
  pressWords,
  writePatch,
} from '@yunta/core';
import { useMemo } from 'react';
import { useShow } from '../../../api/rig.tsx';
import { Fold } from '../../../ui/Fold.tsx';
import { LinkButton } from '../../../ui/LinkButton.tsx';
import { FigureTable } from '../../figures/FigureTable.tsx';
import type { Answer } from './use-loop-plan.ts';
import { wiredSo } from './wired-so.ts';

/** What comes of what is wanted: how many sounds play, what it takes, and the one press that wires it so. */
export function AnswerSheet({
  answer,
  planned,
  isCurrent,
  asWired,
  onStop,
}: {
  readonly answer: Answer | null;
  readonly planned: PlannedLine | null;
  /** Whether the plan is one of what is asked now; else of what was asked before. */
  readonly isCurrent: boolean;
  readonly asWired: PlanCost | null;
  readonly onStop: () => void;
}) {
  const { show, run } = useShow();
  const isWorking = answer === null || answer.state === 'working';
  const command = useMemo(
    () => planned && writePatch(planned.show, planned.line, planned.compiled, planned.plan),
    [planned],
  );
  if (answer && (answer.state === 'refused' || (answer.state === 'optimal' && !answer.cost)))
    return (
      <p className="sheet" style={{ margin: 0, padding: '12px 14px' }} role="status">
        {answer.state === 'refused'
          ? 'A piece is wanted in a loop that another piece keeps, since that stays as it is wired. Let one of them go.'
          : 'No plan is allowed: what stands in line for good, or is held somewhere, contradicts the order that is kept as it is wired. Let a piece go, or let the order count as it is heard.'}
      </p>
    );
  const cost = answer?.cost;
  const sounds = plannedSounds(show).length;
  return (
    <section className="sheet loopsanswer" aria-label="The plan">
      <p role="status" aria-live="polite">
        {cost ? (
          <>
            <b>
              {cost.soundsLost === 0
                ? sounds === 0
                  ? 'No sound asks for anything yet.'
                  : `All ${sounds} ${sounds === 1 ? 'sound plays' : 'sounds play'}.`
                : `${sounds - cost.soundsLost} of ${sounds} sounds play.`}
            </b>{' '}
            {takes(cost)}{' '}
          </>
        ) : (
          'Looking for a plan. '
        )}
        <span className="soft">
          {isWorking
            ? `Still looking${cost && answer.lostAtLeast > 0 ? `: at least ${answer.lostAtLeast} are lost whatever one does` : ''}.`
            : answer.state === 'optimal'
              ? 'No plan is better.'
              : answer.state === 'stopped'
                ? `Stopped; at least ${answer.lostAtLeast} are lost whatever one does.`
                : 'Too many pieces to look at every plan: this one was improved piece by piece.'}
        </span>
        {isWorking && cost && (
          <>
            {' '}
            <LinkButton onClick={onStop}>Stop looking</LinkButton>
          </>
        )}
      </p>
      {planned && (
        <p>
          {command ? (
            <>
              <Button size="compact-sm" disabled={!isCurrent} onClick={() => run(command)}>
                Wire it so
              </Button>{' '}
              <span className="soft">
                {pluggedWords(planned)}
                {asWired && cost && costDifference(asWired, cost) !== 'nothing'
                  ? ` Against today: ${costDifference(asWired, cost)}.`
                  : ''}
              </span>
            </>
          ) : (
            <span className="soft">It is wired so.</span>
          )}
        </p>
      )}
      {planned && command && <PlugMoves planned={planned} />}
      {planned && command && <WithToday planned={planned} />}
      {planned && cost && cost.soundsLost > 0 && <Lost planned={planned} />}
      {planned && cost && cost.footActions > 0 && <Presses planned={planned} />}
    </section>
  );
}

function takes(cost: PlanCost): string {
  const parts = [
    ...(cost.leftOut > 0 ? [`${cost.leftOut} left at home`] : []),
    ...(cost.heardThoughOff > 0 ? [`${cost.heardThoughOff} heard where wanted off`] : []),
    ...(cost.byFoot > 0
      ? [`${cost.byFoot} by foot, ${cost.footActions} ${cost.footActions === 1 ? 'press' : 'presses'} in the set`]
      : []),
    ...(cost.shared > 0 ? [`${cost.shared} in another’s loop`] : []),
    ...(cost.byMessage > 0 ? [`${cost.byMessage} by message or contact`] : []),
    `${cost.cables} cables`,
  ];
  return `${parts.join('; ')}.`;
}

function pluggedWords({ show, line, compiled, plan }: PlannedLine): string {
  const { plugs, stays, moved, gone, added } = patchChange(show, line, compiled, plan);
  if (plugs === 0) return 'The cables stay; what the foot and the slots do is set.';
  return `${plugs} ${plugs === 1 ? 'plug' : 'plugs'} by hand: ${stays.length} cables stay, ${moved.length} move at one end, ${gone.length} go, ${added.length} are new.`;
}

/** The plugs in their order; mute first. */
function PlugMoves({ planned }: { readonly planned: PlannedLine }) {
  const moves = useMemo(() => {
    const after = wiredSo(planned, planned);
    return after ? movesBetween(planned.show, after) : [];
  }, [planned]);
  if (moves.length === 0) return null;
  return (
    <Fold title={`The ${moves.length} moves in their order`}>
      <p className="soft" style={{ margin: '4px 0' }}>
        Mute first; switch a valve amplifier off before its loudspeaker is unplugged.
      </p>
      <ol className="loopsmoves">
        {moves.map(({ id, words }) => (
          <li key={id}>{words}</li>
        ))}
      </ol>
    </Fold>
  );
}

/** Today's rig and the plan's, figure by figure. */
function WithToday({ planned }: { readonly planned: PlannedLine }) {
  const after = useMemo(() => wiredSo(planned, planned), [planned]);
  return after ? (
    <Fold title="Side by side with today">
      <FigureTable shows={[planned.show, after]} names={['today', 'the plan']} />
    </Fold>
  ) : null;
}

/** Each press that the plan leaves to a foot, in the order of the set. */
function Presses({ planned }: { readonly planned: PlannedLine }) {
  return (
    <Fold title="What the foot presses">
      <ol className="loopsmoves">
        {pressWords(planned).map((words, i) => (
          <li key={i}>{words}</li>
        ))}
      </ol>
    </Fold>
  );
}

function Lost({ planned }: { readonly planned: PlannedLine }) {
  const judged = judgePlan(planned.compiled, planned.plan);
  const sounds = planned.show.rig.sounds;
  return (
    <ul className="loopslost" aria-label="Sounds that are lost">
      {planned.compiled.source.sounds.map(({ name }, i) => {
        const why = judged?.lost[i];
        return why ? (
          <li key={name}>
            <b>{sounds[name].name}</b> is lost: {lostWords(planned, why)}
          </li>
        ) : null;
      })}
    </ul>
  );
}
