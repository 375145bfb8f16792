import { Button } from '@mantine/core';
import { useQuery } from '@tanstack/react-query';
import { type Judgement, type Played, why } from '@yunta/core';
import { useState } from 'react';
import { judge } from '../../api/judge.ts';
import { useFindings, useShow } from '../../api/rig.tsx';
import { SeverityMark } from '../../ui/SeverityMark.tsx';
import { Why } from '../../ui/Why.tsx';
import { verdictMark, verdictWords } from './levels.ts';
import { endWords, powerUpWords, refWords, valueWords, wordsOf } from './stone-words.ts';

/** One failure as stepping stones, and played on the simulated rig stone by stone. */
export function WrongCase({ judgement, open, onOpen }: { readonly judgement: Judgement; readonly open: boolean; readonly onOpen: () => void }) {
  const { show, wiring, fix, takeSound } = useShow();
  const { judged } = useFindings();
  const [at, setAt] = useState(0);
  const { sequence, sound } = judgement;
  const played = useQuery({
    queryKey: ['played', judged?.serial, judgement.slot, judgement.level, JSON.stringify(sequence)],
    queryFn: () => (sequence ? judge().play(sequence, sound, judgement.level) : null),
    staleTime: Infinity,
    gcTime: 0,
  });
  const slot = show.rig.slots[judgement.slot];
  const shortest = why.shortestWay(judgement);
  if (!slot || !show.rig.sounds[sound]) return null;
  const fixing = judged?.findings.find((finding) => finding.at.slot === judgement.slot && finding.fix);
  // Once it was played, with what is let go after the last press.
  const stones = played.data?.stones.map(({ stone }) => stone) ?? (sequence ? [{ kind: 'power-up' } as const, ...sequence.stones] : []);
  const play = () => {
    if (!open) onOpen();
    takeSound(sound);
    setAt(0);
  };
  return (
    <article className={`case${open ? ' inhand' : ''}`}>
      <header>
        <SeverityMark is={verdictMark[judgement.verdict]} />
        <h3>{show.rig.sounds[sound].name}</h3>
        <span className="mono">
          bank {slot.bank + 1} · switch {slot.position + 1}
        </span>
        <span className="soft">
          {verdictWords[judgement.verdict]}
          {shortest && (
            <>
              {judgement.level === 1 ? ', first at step ' : ', shortest in '}
              <Why evidence={shortest} />
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
            <button className="linkish" aria-expanded={open} onClick={open ? onOpen : play}>
              {open ? 'Close' : 'Play it'}
            </button>
          )}
        </span>
      </header>
      <ol className="stones">
        {stones.map((stone, i) => {
          const last = i === stones.length - 1;
          const { title, note } = wordsOf(show, wiring, stone);
          const bad = last && played.data ? endWords(wiring, played.data) : [];
          const needs = i === 0 && sequence ? powerUpWords(wiring, sequence) : [];
          return (
            <li key={i}>
              <div className={`stone${last ? ' bad' : ''}${open && i === at ? ' now' : ''}`}>
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

/** The simulated rig at one stone: what went over the wires, what moved; at the end wanted against came up. */
function Playing({ played, at, onStep }: { readonly played: Played; readonly at: number; readonly onStep: (at: number) => void }) {
  const { show, wiring } = useShow();
  const stone = played.stones[at];
  const last = at === played.stones.length - 1;
  const words = wordsOf(show, wiring, stone.stone);
  return (
    <div style={{ marginTop: 10 }}>
      <div style={{ display: 'flex', gap: 10, alignItems: 'center' }}>
        <Button variant="default" disabled={at === 0} onClick={() => onStep(at - 1)}>
          Back
        </Button>
        <Button disabled={last} onClick={() => onStep(at + 1)}>
          Next stone
        </Button>
        <span aria-live="polite">
          Stone {at + 1} of {played.stones.length}: <b>{words.title}</b>
        </span>
      </div>
      <div className="twocol" style={{ marginTop: 8 }}>
        <table className="plain">
          <thead>
            <tr>
              <th>On the wire</th>
              <th>After</th>
              <th>What moved</th>
            </tr>
          </thead>
          <tbody>
            {stone.heard.map((heard, i) => (
              <tr key={i}>
                <td className="mono">{heard.bytes}</td>
                <td className="mono">
                  <Why evidence={why.arrivedAfter(stone.heard, i)} />
                </td>
                <td className="soft">from {show.rig.devices[heard.from]?.name ?? heard.from}</td>
              </tr>
            ))}
            {stone.changed.map((change) => (
              <tr key={change.ref}>
                <td className="soft">—</td>
                <td />
                <td>
                  {refWords(wiring, change.ref)}: {valueWords(wiring, change.ref, change.from)} → <b>{valueWords(wiring, change.ref, change.to)}</b>
                </td>
              </tr>
            ))}
            {stone.heard.length === 0 && stone.changed.length === 0 && (
              <tr>
                <td colSpan={3} className="soft">
                  {stone.stone.kind === 'power-up' ? 'Everything comes up.' : 'Nothing is sent and nothing moves.'}
                </td>
              </tr>
            )}
          </tbody>
        </table>
        {last && (
          <table className="plain">
            <thead>
              <tr>
                <th>In this sound</th>
                <th>Wanted</th>
                <th>Came up</th>
              </tr>
            </thead>
            <tbody>
              {played.wants.map((want) => (
                <tr key={want.ref} className={want.right ? undefined : 'wrongrow'}>
                  <td>{refWords(wiring, want.ref)}</td>
                  <td>{valueWords(wiring, want.ref, want.wanted)}</td>
                  <td className={want.right ? undefined : 'stop'}>{want.right ? valueWords(wiring, want.ref, want.cameUp) : <b>{valueWords(wiring, want.ref, want.cameUp)}</b>}
                    {want.right && want.cameUp !== want.wanted && <span className="soft">, not heard</span>}</td>
                </tr>
              ))}
            </tbody>
          </table>
        )}
      </div>
    </div>
  );
}
