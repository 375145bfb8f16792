import { Button } from '@mantine/core';
import { useQuery } from '@tanstack/react-query';
import { controlLabel, type Judgement, type Played, slotPlace, valueLabel, why } from '@yunta/core';
import { useState } from 'react';
import { useFindings, useShow } from '../../api/rig.tsx';
import { useServices } from '../../api/services.tsx';
import { SeverityMark } from '../../ui/SeverityMark.tsx';
import { Why } from '../../ui/Why.tsx';
import { verdictMark, verdictWords } from './levels.ts';
import { endWords, powerUpWords, wordsOf } from './step-labels.ts';
import { LinkButton } from '../../ui/LinkButton.tsx';
import { DataTable } from '../../ui/DataTable.tsx';

/** One failure as a row of steps, and played on the simulated rig step by step. */
export function WrongCase({
  judgement,
  open,
  onOpen,
}: {
  readonly judgement: Judgement;
  readonly open: boolean;
  readonly onOpen: () => void;
}) {
  const { id, show, wiring, fix, selectSound } = useShow();
  const { judge } = useServices();
  const { judged } = useFindings();
  const [at, setAt] = useState(0);
  const { sequence, sound } = judgement;
  const played = useQuery({
    queryKey: ['played', id, judged?.serial, judgement.slot, judgement.level, JSON.stringify(sequence)],
    queryFn: () => (sequence ? judge().play(id, sequence, sound, judgement.level) : null),
    staleTime: Infinity,
    gcTime: 0,
  });
  const slot = show.rig.slots[judgement.slot];
  const shortest = why.shortestWay(judgement);
  if (!slot || !show.rig.sounds[sound]) return null;
  const fixing = judged?.findings.find((finding) => finding.at.slot === judgement.slot && finding.fix);
  // Once it was played, with what is let go after the last press.
  const steps =
    played.data?.steps.map(({ step }) => step) ?? (sequence ? [{ kind: 'power-up' } as const, ...sequence.steps] : []);
  const play = () => {
    if (!open) onOpen();
    selectSound(sound);
    setAt(0);
  };
  return (
    <article className={`case${open ? ' inhand' : ''}`}>
      <header>
        <SeverityMark is={verdictMark[judgement.verdict]} />
        <h3>{show.rig.sounds[sound].name}</h3>
        <span>{slotPlace(slot)}</span>
        <span className="soft">
          {verdictWords[judgement.verdict]}
          {shortest && (
            <>
              {judgement.level === 1 ? ' at step ' : ' after '}
              <Why evidence={shortest} />
              {judgement.level !== 1 && (judgement.length === 1 ? ' step' : ' steps')}
            </>
          )}
          {judgement.gaveUp && ` (${judgement.gaveUp})`}
        </span>
        <span className="tools">
          {fixing?.fix && (
            <Button variant="default" onClick={() => fix(fixing)}>
              {fixing.fix.label}
            </Button>
          )}
          {sequence && (
            <LinkButton aria-expanded={open} onClick={open ? onOpen : play}>
              {open ? 'Close' : 'Play it'}
            </LinkButton>
          )}
        </span>
      </header>
      <ol className="steps">
        {steps.map((step, i) => {
          const last = i === steps.length - 1;
          const { title, note } = wordsOf(show, wiring, step);
          const bad = last && played.data ? endWords(wiring, played.data) : [];
          const needs = i === 0 && sequence ? powerUpWords(wiring, sequence) : [];
          return (
            <li key={i}>
              <div className={`step${last ? ' bad' : ''}${open && i === at ? ' now' : ''}`}>
                <b>{title}</b>
                <small>{needs.length > 0 ? needs.join(', ') : note}</small>
                {bad.map((words) => (
                  <small key={words}>
                    <b>{words}</b>
                  </small>
                ))}
              </div>
            </li>
          );
        })}
      </ol>
      {open && played.data && <Playing played={played.data} at={at} onStep={setAt} />}
    </article>
  );
}

/** The simulated rig at one step: what went over the wires, what moved; at the end wanted against came up. */
function Playing({
  played,
  at,
  onStep,
}: {
  readonly played: Played;
  readonly at: number;
  readonly onStep: (at: number) => void;
}) {
  const { show, wiring } = useShow();
  const step = played.steps[at];
  const last = at === played.steps.length - 1;
  const words = wordsOf(show, wiring, step.step);
  return (
    <div style={{ marginTop: 10 }}>
      <div style={{ display: 'flex', gap: 10, alignItems: 'center' }}>
        <Button variant="default" disabled={at === 0} onClick={() => onStep(at - 1)}>
          Back
        </Button>
        <Button disabled={last} onClick={() => onStep(at + 1)}>
          Next step
        </Button>
        <span aria-live="polite">
          Step {at + 1} of {played.steps.length}: <b>{words.title}</b>
        </span>
      </div>
      <div className="twocol" style={{ marginTop: 8 }}>
        <DataTable>
          <thead>
            <tr>
              <th>Sent</th>
              <th>After</th>
              <th>What moved</th>
            </tr>
          </thead>
          <tbody>
            {step.heard.map((heard, i) => (
              <tr key={i}>
                <td className="mono">{heard.bytes}</td>
                <td className="mono">
                  <Why evidence={why.arrivedAfter(step.heard, i)} />
                </td>
                <td className="soft">from {show.rig.devices[heard.from]?.name ?? heard.from}</td>
              </tr>
            ))}
            {step.changed.map((change) => (
              <tr key={change.ref}>
                <td className="soft">—</td>
                <td />
                <td>
                  {controlLabel(wiring, change.ref)}: {valueLabel(wiring, change.ref, change.from)} →{' '}
                  <b>{valueLabel(wiring, change.ref, change.to)}</b>
                </td>
              </tr>
            ))}
            {step.heard.length === 0 && step.changed.length === 0 && (
              <tr>
                <td colSpan={3} className="soft">
                  {step.step.kind === 'power-up' ? 'Everything comes up.' : 'Nothing is sent and nothing moves.'}
                </td>
              </tr>
            )}
          </tbody>
        </DataTable>
        {last && (
          <DataTable>
            <thead>
              <tr>
                <th>In this sound</th>
                <th>Wanted</th>
                <th>Actual</th>
              </tr>
            </thead>
            <tbody>
              {played.wants.map((want) => (
                <tr key={want.ref} className={want.right ? undefined : 'wrongrow'}>
                  <td>{controlLabel(wiring, want.ref)}</td>
                  <td>{valueLabel(wiring, want.ref, want.wanted)}</td>
                  <td className={want.right ? undefined : 'stop'}>
                    {want.right ? (
                      valueLabel(wiring, want.ref, want.cameUp)
                    ) : (
                      <b>{valueLabel(wiring, want.ref, want.cameUp)}</b>
                    )}
                    {want.right && want.cameUp !== want.wanted && <span className="soft">, not heard</span>}
                  </td>
                </tr>
              ))}
            </tbody>
          </DataTable>
        )}
      </div>
    </div>
  );
}
