import { UnstyledButton } from '@mantine/core';
import { actionLabel, type FootPlan, type Moment, type PartPlan, resetWords } from '@yunta/core';
import { useMemo } from 'react';
import { useShow } from '../../api/rig.tsx';
import { DataTable } from '../../ui/DataTable.tsx';
import { Fold } from '../../ui/Fold.tsx';
import { SeverityMark } from '../../ui/SeverityMark.tsx';
import { alike, byPress, mistakeWords, stillThere } from './feet-words.ts';
import { verdictMark, verdictWords } from './levels.ts';
import { useFootPlan } from './use-proof.ts';

/** The parts that no slot plays: what feet and hands do, what one mistake costs, and how to get back. */
export function ByFeet() {
  const { show } = useShow();
  const found = useFootPlan();
  const plan = useMemo(() => found && stillThere(show, found), [show, found]);
  if (!plan) return <p className="soft">Finding what the feet do …</p>;
  return (
    <>
      <div className="sectionhead">
        <h2>Played by feet</h2>
        <span className="soft">the fewest presses and hand moves, from power-up through the set</span>
      </div>
      <Plan parts={plan.parts} />
      <Mistakes plan={plan} />
      <Resets plan={plan} />
    </>
  );
}

function Plan({ parts }: { readonly parts: readonly PartPlan[] }) {
  const { show, wiring, selectSound } = useShow();
  const labels = ({ steps }: PartPlan, moment: Moment): string =>
    steps.flatMap(({ when, action }) => (when === moment && action ? [actionLabel(wiring, action)] : [])).join(', ');
  const hasAfter = parts.some((plan) => plan.judgement && labels(plan, 'after') !== '');
  return (
    <div className="scroll-x">
      <DataTable className="sheet" label="What feet and hands do">
        <thead>
          <tr>
            <th>Part</th>
            <th>Sound</th>
            <th>Before</th>
            <th>On the bar line</th>
            {hasAfter && <th>After</th>}
            <th>Comes up</th>
          </tr>
        </thead>
        <tbody>
          {parts.map((plan, i) => {
            const { part: id, sound, judgement } = plan;
            const part = show.songbook.parts[id];
            if (!judgement || sound === null) return null;
            return (
              <tr key={`${id} ${i}`}>
                <td>
                  {show.songbook.songs[part.song]?.name}, {part.name}
                </td>
                <td>
                  <UnstyledButton onClick={() => selectSound(sound)}>{show.rig.sounds[sound]?.name}</UnstyledButton>
                </td>
                <td>{labels(plan, 'before')}</td>
                <td>{labels(plan, 'on')}</td>
                {hasAfter && <td>{labels(plan, 'after')}</td>}
                <td style={{ whiteSpace: 'nowrap' }}>
                  <SeverityMark is={verdictMark[judgement.verdict]} size={13} />{' '}
                  <span className={judgement.verdict === 'does-not' ? 'stop' : 'soft'}>
                    {judgement.verdict === 'recalls' ? 'right' : verdictWords[judgement.verdict]}
                  </span>
                </td>
              </tr>
            );
          })}
        </tbody>
      </DataTable>
    </div>
  );
}

function Mistakes({ plan: { mistakes } }: { readonly plan: FootPlan }) {
  const { show, wiring } = useShow();
  const presses = byPress(show, wiring, mistakes);
  if (presses.length === 0) return null;
  return (
    <>
      <div className="sectionhead">
        <h2>One press missed, or one too many</h2>
        <span className="soft">all else as planned: how far it is heard</span>
      </div>
      <DataTable className="sheet" label="One press missed, or one too many">
        <thead>
          <tr>
            <th>Pressed</th>
            <th>Missed once</th>
            <th>Once too often</th>
          </tr>
        </thead>
        <tbody>
          {alike(presses).map(({ labels, missed, extra }) => (
            <tr key={labels.join()}>
              <td>
                <b>{labels.join(', ')}</b>
              </td>
              <td>{missed}</td>
              <td>{extra}</td>
            </tr>
          ))}
        </tbody>
      </DataTable>
      <Fold title={`Each of ${mistakes.length} mistakes, place by place`}>
        <ul className="mistakes">
          {presses.map(({ key, label, missed, extra }) => (
            <li key={key}>
              <b>{label}</b>
              <ul>
                {[...missed, ...extra].map((mistake, i) => (
                  <li key={i}>{mistakeWords(show, mistake)}</li>
                ))}
              </ul>
            </li>
          ))}
        </ul>
      </Fold>
    </>
  );
}

function Resets({ plan: { resets } }: { readonly plan: FootPlan }) {
  const { show, wiring } = useShow();
  return (
    <>
      <div className="sectionhead">
        <h2>To be sure of a sound</h2>
        <span className="soft">what brings it up whatever was pressed before</span>
      </div>
      <DataTable className="sheet" label="To be sure of a sound">
        <tbody>
          {resets.map((reset) => (
            <tr key={reset.sound}>
              <td style={{ width: '30%' }}>
                <b>{show.rig.sounds[reset.sound]?.name}</b>
              </td>
              <td className={reset.steps ? undefined : 'soft'}>{resetWords(show, wiring, reset)}</td>
            </tr>
          ))}
        </tbody>
      </DataTable>
    </>
  );
}
