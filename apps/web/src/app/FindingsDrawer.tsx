import { Button } from '@mantine/core';
import { commands, type Severity, severityWords } from '@yunta/core';
import { memo, useState } from 'react';
import { keyOfFinding } from '../api/judged-show.ts';
import type { OpenShow } from '../api/open-rig.ts';
import { useFindings, useShow } from '../api/rig.tsx';
import { DeviceInspector } from '../stations/gear/DeviceInspector.tsx';
import { FindingLine } from '../ui/FindingLine.tsx';
import { SeverityMark } from '../ui/SeverityMark.tsx';
import { freshId } from '../ui/ids.ts';
import type { Judged, ToldFinding } from '../workers/judge-types.ts';

/** The selected device, and under it what is found: of the selected sound first. */
export function FindingsDrawer() {
  const { sound, device, selectFinding, fix } = useShow();
  const { judged, gone } = useFindings();
  const [only, setOnly] = useState(false);
  const [hidden, setHidden] = useState<ReadonlySet<Severity>>(new Set());
  const all = judged?.findings ?? [];
  const concerns = (finding: ToldFinding) => finding.at.sound === undefined || finding.at.sound === sound?.id;
  const shown = all.filter((finding) => (!only || concerns(finding)) && !hidden.has(finding.severity));
  const turn = (severity: Severity) => {
    const next = new Set(hidden);
    if (!next.delete(severity)) next.add(severity);
    setHidden(next);
  };
  return (
    <>
      {device !== null && <DeviceInspector key={device} id={device} />}
      <div className="sectionhead" style={{ marginTop: 0 }}>
        <h2>Findings</h2>
        <span className="tools">
          <label style={{ fontSize: 12 }}>
            <input type="checkbox" checked={only} onChange={(event) => setOnly(event.target.checked)} /> this sound only
          </label>
        </span>
      </div>
      {all.length > 0 && (
        <div className="filters" role="group" aria-label="Which findings are shown">
          {severities.map((severity) => (
            <button
              key={severity}
              aria-pressed={!hidden.has(severity)}
              title={severityWords[severity]}
              onClick={() => turn(severity)}
            >
              <SeverityMark is={severity} size={12} /> {all.filter((finding) => finding.severity === severity).length}{' '}
              {filterWords[severity]}
            </button>
          ))}
        </div>
      )}
      <ul className="findings">
        {judged?.broken.map((rule) => (
          <li key={rule.ruleId}>
            <SeverityMark is="fix-before-load-in" />
            <span className="title">
              The rule {rule.ruleId} failed: {rule.reason}
            </span>
          </li>
        ))}
        {shown.map((finding) => (
          <FindingItem key={keyOfFinding(finding)} finding={finding} selectFinding={selectFinding} fix={fix} />
        ))}
        {gone.map((finding) => (
          <li key={`gone ${keyOfFinding(finding)}`} className="gone">
            <SeverityMark is="ok" />
            <span className="title">{finding.title}</span>
            <span className="text">{finding.at.sound ? finding.text : 'Gone with the last edits.'}</span>
          </li>
        ))}
      </ul>
      {judged && shown.length === 0 && (
        <p className="soft">{all.length > 0 ? 'Nothing among what is shown.' : 'Nothing found.'}</p>
      )}
      {!judged && <p className="soft">Judging …</p>}
      {judged && judged.waived.length > 0 && <Waived waived={judged.waived} />}
    </>
  );
}

const filterWords: Record<Severity, string> = {
  'stops-the-show': 'stop',
  'fix-before-load-in': 'to fix',
  'worth-knowing': 'to know',
};
const severities: readonly Severity[] = ['stops-the-show', 'fix-before-load-in', 'worth-knowing'];

/** Why a finding may stay: kept with the rig, shown with its reason, judged again at a press. */
function WaiveForm({ finding, onDone }: { readonly finding: ToldFinding; readonly onDone: () => void }) {
  const { show, run } = useShow();
  const [reason, setReason] = useState('');
  return (
    <form
      className="does"
      onSubmit={(event) => {
        event.preventDefault();
        if (reason.trim() === '') return;
        if (
          run(
            commands.waive(
              show,
              freshId('waiver', show.rig.waivers ?? {}, 'waiver'),
              finding.ruleId,
              finding.at,
              reason.trim(),
              finding.title,
            ),
          )
        )
          onDone();
      }}
    >
      <input
        className="cellinput"
        style={{ border: '1px solid var(--line)', flex: 1 }}
        autoFocus
        aria-label={`Why “${finding.title}” may stay`}
        placeholder="why it may stay"
        value={reason}
        onChange={(event) => setReason(event.target.value)}
        maxLength={500}
      />
      <Button type="submit" variant="default" size="compact-xs">
        Accept for this reason
      </Button>
    </form>
  );
}

function Waived({ waived }: { readonly waived: Judged['waived'] }) {
  const { show, run } = useShow();
  return (
    <details style={{ marginTop: 10 }}>
      <summary style={{ cursor: 'pointer' }}>Accepted: {waived.length}</summary>
      <ul className="findings">
        {waived.map(({ finding, waiver }) => (
          <li key={waiver.id + JSON.stringify(finding.at)}>
            <SeverityMark is={finding.severity} />
            <span className="title">{finding.title}</span>
            <span className="text">
              {finding.text} <i>{waiver.reason}</i>
            </span>
            <span className="does">
              <button className="linkish" onClick={() => run(commands.unwaive(show, waiver.id, finding.title))}>
                Reopen
              </button>
            </span>
          </li>
        ))}
      </ul>
    </details>
  );
}

/** Drawn again only where the finding says something else. */
const FindingItem = memo(function FindingItem({
  finding,
  selectFinding,
  fix,
}: { readonly finding: ToldFinding } & Pick<OpenShow, 'selectFinding' | 'fix'>) {
  const [why, setWhy] = useState(false);
  const [waiving, setWaiving] = useState(false);
  return (
    <FindingLine finding={finding} onSelect={() => selectFinding(finding)}>
      <span className="does">
        {finding.fix && (
          <Button variant="default" size="compact-xs" onClick={() => fix(finding)}>
            {finding.fix.label}
          </Button>
        )}
        <button className="linkish" aria-expanded={why} onClick={() => setWhy(!why)}>
          Why?
        </button>
        <button className="linkish" aria-expanded={waiving} onClick={() => setWaiving(!waiving)}>
          Accept
        </button>
      </span>
      {waiving && <WaiveForm finding={finding} onDone={() => setWaiving(false)} />}
      {why && (
        <div className="why">
          {finding.why} <b>{finding.remedy}</b>
          <div className="soft">Source: {finding.source}</div>
        </div>
      )}
    </FindingLine>
  );
});
