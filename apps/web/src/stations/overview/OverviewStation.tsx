import type { ComponentProps } from 'react';
import { useQuery } from '@tanstack/react-query';
import {
  chosenSetList,
  commands,
  conventionOf,
  type Conventions,
  conventions,
  describeCommand,
  isByFeet,
  type Show,
  unjudged,
} from '@yunta/core';
import { Link, useSearchParams } from 'react-router';
import { useFindings, useSaved, useShow } from '../../api/rig.tsx';
import { readHistory } from '../../api/shows.ts';
import { FindingLine } from '../../ui/FindingLine.tsx';
import { SeverityMark } from '../../ui/SeverityMark.tsx';
import { StationHead } from '../../ui/StationHead.tsx';
import { Why } from '../../ui/Why.tsx';
import type { Judged } from '../../workers/judge-types.ts';
import { levels, outcomeOf } from '../proof/levels.ts';
import { useAccidentalPresses, useProof } from '../proof/use-proof.ts';
import { conventionWords } from './convention-words.ts';
import { byStation } from './by-station.ts';
import { VariantsPage } from './variants/VariantsPage.tsx';
import { verdictOf } from './verdict.ts';
import { LinkButton } from '../../ui/LinkButton.tsx';
import { DataTable } from '../../ui/DataTable.tsx';
import { CellSelect } from '../../ui/CellSelect.tsx';
import { InlineField } from '../../ui/InlineField.tsx';
import './overview.css';

/** The verdict first: whether one can go on stage with this, and what stands in the way. */
export function OverviewStation() {
  const [params, setParams] = useSearchParams();
  return params.get('view') === 'variants' ? <VariantsPage onClose={() => setParams({})} /> : <Overview />;
}

function Overview() {
  const { show } = useShow();
  const { judged } = useFindings();
  return (
    <>
      <StationHead name="Overview" question="Can I go on stage with this, tonight?" />
      <VerdictLine judged={judged} />
      <div className="overview">
        <div>
          <Standing judged={judged} />
          {canBeProved(show) ? <Levels /> : <NextSteps />}
        </div>
        <div>
          <RigFacts />
          <ConventionsTable />
          <LastChanges key={show.rig.id} />
        </div>
      </div>
    </>
  );
}

/** Whether there is anything that the proof can speak of. */
const canBeProved = ({ rig }: Show): boolean =>
  Object.keys(rig.slots).length > 0 || Object.values(rig.casting).some((cast) => isByFeet(rig, cast));

function VerdictLine({ judged }: { readonly judged: Judged | null }) {
  const { show, wiring } = useShow();
  if (!judged) return <p className="sheet verdictline">Judging …</p>;
  const verdict = verdictOf(show, judged.findings, unjudged(show, wiring));
  return (
    <p className="sheet verdictline" style={{ margin: 0 }} role="status">
      <SeverityMark is={verdict.mark} size={26} /> {verdict.words}
    </p>
  );
}

/** What stops the show, one by one; the rest by the station where it is mended. */
function Standing({ judged }: { readonly judged: Judged | null }) {
  const { id, fix, selectFinding } = useShow();
  const findings = judged?.findings ?? [];
  const stops = findings.filter((finding) => finding.severity === 'stops-the-show');
  const rest = byStation(findings.filter((finding) => finding.severity !== 'stops-the-show'));
  return (
    <>
      {stops.length > 0 && (
        <div className="sheet" style={{ padding: '0 14px' }}>
          <ul className="findings">
            {stops.map((finding) => (
              <FindingLine
                key={`${finding.ruleId}${finding.messageId}${JSON.stringify(finding.at)}`}
                finding={finding}
                onSelect={() => selectFinding(finding)}
              >
                {finding.fix && (
                  <span className="does">
                    <LinkButton onClick={() => fix(finding)}>{finding.fix.label}</LinkButton>
                  </span>
                )}
              </FindingLine>
            ))}
          </ul>
        </div>
      )}
      {rest.length > 0 && (
        <>
          <div className="sectionhead">
            <h2>Where to fix</h2>
            <span className="soft">what else was found, by the station that it belongs to</span>
          </div>
          <DataTable className="sheet">
            <tbody>
              {rest.map(({ station, fixes, knows, titles }) => (
                <tr key={station.to}>
                  <td style={{ width: 90 }}>
                    <Link className="linkish" to={`/rig/${id}/${station.to}`}>
                      {station.name}
                    </Link>
                  </td>
                  <td style={{ width: 86, whiteSpace: 'nowrap' }}>
                    {fixes > 0 && (
                      <>
                        <SeverityMark is="fix-before-load-in" size={13} /> {fixes}{' '}
                      </>
                    )}
                    {knows > 0 && (
                      <>
                        <SeverityMark is="worth-knowing" size={13} /> {knows}
                      </>
                    )}
                  </td>
                  <td className="soft">{titles.join('; ')}</td>
                </tr>
              ))}
            </tbody>
          </DataTable>
        </>
      )}
    </>
  );
}

/** The order of the work, for a rig that cannot be judged yet. */
function NextSteps() {
  const { id } = useShow();
  const steps: readonly (readonly [station: string, name: string, does: string])[] = [
    ['gear', 'Gear', 'type what you have: guitar, drive, amp, a loop switcher if there is one'],
    ['routing', 'Routing', 'say what plugs into what, one cable a line'],
    ['sounds', 'Sounds', 'say what is on in each sound'],
    ['program', 'Program', 'lay the sounds under the foot, where there is a switcher'],
    ['set', 'Set', 'songs, and the sound that plays each part'],
  ];
  return (
    <ol className="sheet" style={{ margin: 0, padding: '10px 14px 10px 34px', display: 'grid', gap: 6 }}>
      {steps.map(([station, name, does]) => (
        <li key={station}>
          <Link className="linkish" to={`/rig/${id}/${station}`}>
            {name}
          </Link>
          : {does}
        </li>
      ))}
    </ol>
  );
}

function Levels() {
  const { id } = useShow();
  const proved = useProof();
  const presses = useAccidentalPresses(proved);
  return (
    <>
      <div className="sectionhead">
        <h2>Will it come up right?</h2>
        <span className="tools">
          <Link className="linkish" to={`/rig/${id}/proof`}>
            To the proof
          </Link>
        </span>
      </div>
      <DataTable className="sheet">
        <tbody>
          {levels.map(({ level, name, what }) => {
            const outcome = outcomeOf(level, proved[level], presses);
            return (
              <tr key={level}>
                <td style={{ width: 22 }}>
                  <SeverityMark is={outcome?.mark ?? 'none'} />
                </td>
                <td>
                  <b>{name}</b>
                </td>
                <td className="num">{outcome ? <Why evidence={outcome.evidence} /> : '…'}</td>
                <td className="soft">{what}</td>
              </tr>
            );
          })}
        </tbody>
      </DataTable>
    </>
  );
}

function RigFacts() {
  const { show, attempt } = useShow();
  const { rig, songbook } = show;
  const list = chosenSetList(show);
  const facts: readonly (readonly [string, string])[] = [
    ['Pieces', String(Object.keys(rig.devices).length)],
    ['Cables', String(Object.keys(rig.cables).length)],
    ['Sounds', String(Object.keys(rig.sounds).length)],
    ['Songs', String(Object.keys(songbook.songs).length)],
    ['Played tonight', list ? `${list.name}, ${list.songs.length} songs` : 'no set list yet'],
  ];
  return (
    <div className="sheet">
      <div style={{ padding: '8px 14px', borderBottom: '1px solid var(--line)' }}>
        <InlineField
          label="Name of the rig"
          value={rig.name}
          onCommit={(name) => (name === '' ? 'A rig needs a name.' : attempt(commands.renameRig(show, name)))}
        />
      </div>
      <div className="factgrid" style={{ gridTemplateColumns: 'auto 1fr' }}>
        {facts.map(([name, value]) => (
          <div key={name} style={{ display: 'contents' }}>
            <span className="soft">{name}</span>
            <span>{value}</span>
          </div>
        ))}
        <WidthChoice />
        <LengthUnitChoice />
      </div>
    </div>
  );
}

/** What it plays to tonight: findings of width follow it. */
function WidthChoice() {
  const { show, run } = useShow();
  return (
    <FactChoice
      label="Tonight is"
      value={show.rig.settings.width ?? ''}
      choices={[
        { value: '', label: 'not said' },
        { value: 'mono', label: 'mono' },
        { value: 'stereo', label: 'stereo' },
      ]}
      onPick={(width) =>
        run(commands.setSetting(show, 'width', width === 'mono' || width === 'stereo' ? width : undefined))
      }
    />
  );
}

/** In what lengths are shown and typed. */
function LengthUnitChoice() {
  const { show, run } = useShow();
  return (
    <FactChoice
      label="Lengths in"
      value={show.rig.settings.lengthUnit ?? 'm'}
      choices={[
        { value: 'm', label: 'metres' },
        { value: 'ft', label: 'feet' },
      ]}
      onPick={(unit) => run(commands.setLengthUnit(show, unit === 'ft' ? 'ft' : 'm'))}
    />
  );
}

/** A fact of the rig that one chooses, in a row of facts. */
function FactChoice(choice: Pick<ComponentProps<typeof CellSelect>, 'label' | 'value' | 'choices' | 'onPick'>) {
  return (
    <div style={{ display: 'contents' }}>
      <span className="soft">{choice.label}</span>
      <CellSelect {...choice} />
    </div>
  );
}

/** On which side of the disputed questions this rig is: rules that practitioners dispute follow it. */
function ConventionsTable() {
  const { show, run } = useShow();
  return (
    <>
      <div className="sectionhead">
        <h2>Conventions</h2>
        <span className="soft">rules that practitioners dispute follow these</span>
      </div>
      <div className="sheet factgrid" style={{ gridTemplateColumns: 'auto 1fr' }}>
        {(Object.keys(conventions) as (keyof Conventions)[]).map((question) => (
          <FactChoice
            key={question}
            label={conventionWords[question]}
            value={conventionOf(show.rig, question)}
            choices={conventions[question].map((side) => ({ value: side, label: side }))}
            onPick={(side) => run(commands.setConvention(show, question, side as never))}
          />
        ))}
      </div>
    </>
  );
}

function LastChanges() {
  const { id } = useShow();
  const { revision } = useSaved();
  const history = useQuery({
    queryKey: ['history', id, revision],
    queryFn: () => readHistory(id),
    placeholderData: (old) => old,
  });
  const last = history.data?.slice(0, 5) ?? [];
  return (
    <>
      <div className="sectionhead">
        <h2>Last changes</h2>
        <span className="soft">{history.error ? history.error.message : ''}</span>
      </div>
      <div className="sheet" style={{ padding: '6px 14px' }}>
        {last.length === 0 && (
          <p className="soft" style={{ margin: 4 }}>
            None yet.
          </p>
        )}
        {last.map((entry) => (
          <div key={entry.revision} style={{ display: 'flex', gap: 10, padding: '2px 0' }}>
            <span className="num soft">{entry.revision}</span>
            <span style={{ flex: 1 }}>{describeCommand(entry.command)}</span>
            <span className="soft">
              {new Date(entry.at).toLocaleString([], { dateStyle: 'short', timeStyle: 'short' })}
            </span>
          </div>
        ))}
      </div>
    </>
  );
}
