import { UnstyledButton } from '@mantine/core';
import { isByFeet, type Judgement, type Level, slotLabel, type StrayReport, why } from '@yunta/core';
import { useState } from 'react';
import { useShow } from '../../api/rig.tsx';
import { SeverityMark } from '../../ui/SeverityMark.tsx';
import { StationHead } from '../../ui/StationHead.tsx';
import { Why } from '../../ui/Why.tsx';
import { levels, outcomeOf, verdictMark, verdictWords } from './levels.ts';
import { lostTo } from './accidental-words.ts';
import { ByFeet } from './ByFeet.tsx';
import { StrayTable } from './StrayTable.tsx';
import { useAccidentalPresses, useProof } from './use-proof.ts';
import { WrongCase } from './WrongCase.tsx';
import { Fold } from '../../ui/Fold.tsx';
import { DataTable } from '../../ui/DataTable.tsx';
import './proof.css';

/** Whether every sound comes up right, at each of the four levels; the shortest ways in which one does not. */
export function ProofStation() {
  const { show, wiring } = useShow();
  const proved = useProof();
  const presses = useAccidentalPresses(proved);
  const [level, setLevel] = useState<Level>(2);
  const [open, setOpen] = useState<string | null>(null);
  const now = proved[level];
  const wrong =
    now?.judgements.filter(
      (judgement) => judgement.verdict === 'does-not' || judgement.verdict === 'cannot-be-known',
    ) ?? [];
  const slots = Object.keys(show.rig.slots).length;
  const byFeet = Object.values(show.rig.casting).some((cast) => isByFeet(show.rig, cast));
  const cases = wrong.map((item) => (
    <WrongCase
      key={item.slot}
      judgement={item}
      open={open === item.slot}
      onOpen={() => setOpen(open === item.slot ? null : item.slot)}
    />
  ));
  return (
    <>
      <StationHead name="Proof" question="Will every sound come up right?">
        <span className="soft num">
          {now ? (
            <Why
              evidence={why.explored(
                now.spaces,
                now.states,
                now.milliseconds,
                now.judgements.filter((judgement) => judgement.gaveUp !== undefined).length,
              )}
            />
          ) : (
            'proving …'
          )}
        </span>
      </StationHead>
      {slots === 0 && !byFeet && (
        <p className="sheet" style={{ padding: 14, margin: 0 }}>
          No sound has a slot yet, and no part plays one by feet. Say what the rig should make on <b>Sounds</b>, lay it
          out on <b>Program</b>, or say on <b>Set</b> which sound plays which part; the proof follows by itself.
        </p>
      )}
      {(slots > 0 || byFeet) && (
        <DataTable className="levels sheet" label="Verdicts by level">
          <tbody>
            {levels.map(({ level: one, name, what }) => {
              const outcome = outcomeOf(one, proved[one], presses);
              return (
                <tr key={one} aria-selected={one === level} onClick={() => setLevel(one)}>
                  <th scope="row">
                    <UnstyledButton aria-pressed={one === level} onClick={() => setLevel(one)}>
                      <SeverityMark is={outcome?.mark ?? 'none'} /> <b>{name}</b>
                    </UnstyledButton>
                  </th>
                  <td className="num" data-level={one}>
                    {outcome ? <Why evidence={outcome.evidence} /> : '…'}
                  </td>
                  <td className="soft">{what}</td>
                </tr>
              );
            })}
          </tbody>
        </DataTable>
      )}
      {byFeet && <ByFeet />}
      {now && slots > 0 && (
        <>
          {level === 3 && <StrayTable presses={presses} />}
          <div className="sectionhead">
            <h2>
              {wrong.length === 0
                ? 'Every sound that is played comes up right'
                : level === 1
                  ? 'Where the set goes wrong'
                  : 'Shortest ways to a wrong sound'}
            </h2>
            <span className="soft">{levels.find((item) => item.level === level)!.name.toLowerCase()}</span>
          </div>
          {wrong.length > 0 && (
            <div className="sheet">
              {level === 3 ? (
                <Fold key="presses" title={`Each of ${wrong.length} sounds, with the press that makes it wrong`}>
                  {cases}
                </Fold>
              ) : (
                cases
              )}
            </div>
          )}
          <AllVerdicts proved={proved} rows={now.judgements} presses={presses} />
          {level === 4 && (
            <p className="keys">
              One message or pulse is lost whole, at its sender, on a cable or at one receiver. Garbled remains of half
              a message are not modelled.
            </p>
          )}
        </>
      )}
      {wiring.devices.length > 0 && (
        <p className="keys">
          The proof rests on the facts entered for each device: how it counts, what a repeated program change does, how
          long it loads, how it powers up. Where a fact is typical, check it in the device’s own papers.
        </p>
      )}
    </>
  );
}

function AllVerdicts({
  proved,
  rows,
  presses,
}: {
  readonly proved: ReturnType<typeof useProof>;
  readonly rows: readonly Judgement[];
  readonly presses: readonly StrayReport[] | null;
}) {
  const { show, selectSound, sound } = useShow();
  return (
    <>
      <div className="sectionhead">
        <h2>All slots</h2>
      </div>
      <div className="scroll-x">
        <DataTable className="sheet">
          <thead>
            <tr>
              <th>Slot</th>
              <th>Sound</th>
              {levels.map(({ level, name }) => (
                <th key={level}>{name}</th>
              ))}
            </tr>
          </thead>
          <tbody>
            {rows.map((row) => {
              const slot = show.rig.slots[row.slot];
              if (!slot) return null;
              return (
                <tr key={row.slot} aria-selected={sound?.id === row.sound}>
                  <td className="mono">{slotLabel(slot)}</td>
                  <td>
                    <UnstyledButton onClick={() => selectSound(row.sound)}>
                      {show.rig.sounds[row.sound]?.name}
                    </UnstyledButton>
                  </td>
                  {levels.map(({ level }) => {
                    if (level === 3)
                      return (
                        <td key={level} className="soft">
                          {presses ? lostTo(show, presses, row.sound) : '…'}
                        </td>
                      );
                    const judgement = proved[level]?.judgements.find((other) => other.slot === row.slot);
                    const shortest = judgement && why.shortestWay(judgement);
                    return (
                      <td key={level}>
                        {judgement ? (
                          <>
                            <SeverityMark is={verdictMark[judgement.verdict]} size={13} />{' '}
                            <span className={judgement.verdict === 'does-not' ? 'stop' : 'soft'}>
                              {verdictWords[judgement.verdict]}
                            </span>
                            {shortest && (
                              <span className="mono soft">
                                {' '}
                                <Why evidence={shortest} />
                              </span>
                            )}
                          </>
                        ) : (
                          '…'
                        )}
                      </td>
                    );
                  })}
                </tr>
              );
            })}
          </tbody>
        </DataTable>
      </div>
    </>
  );
}
