import { Button } from '@mantine/core';
import { useState } from 'react';
import { useShow } from '../api/rig.tsx';
import { DeviceInspector } from '../stations/routing/DeviceInspector.tsx';
import { SeverityMark } from '../ui/SeverityMark.tsx';
import type { ToldFinding } from '../workers/judge-types.ts';

/** The device in hand, and under it what is found: of the sound in hand first. */
export function FindingsDrawer() {
  const { judged, sound, gone, device } = useShow();
  const [only, setOnly] = useState(false);
  const all = judged?.findings ?? [];
  const concerns = (finding: ToldFinding) => finding.at.sound === undefined || finding.at.sound === sound?.id;
  const shown = only ? all.filter(concerns) : all;
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
      <ul className="findings">
        {judged?.broken.map((rule) => (
          <li key={rule.ruleId}>
            <SeverityMark is="fix-before-load-in" />
            <span className="title">The rule {rule.ruleId} failed: {rule.reason}</span>
          </li>
        ))}
        {shown.map((finding) => (
          <FindingItem key={`${finding.ruleId}${finding.messageId}${JSON.stringify(finding.at)}`} finding={finding} />
        ))}
        {gone.map((finding) => (
          <li key={`gone ${finding.ruleId}${JSON.stringify(finding.at)}`} className="gone">
            <SeverityMark is="ok" />
            <span className="title">{finding.title}</span>
            <span className="text">{finding.at.sound ? finding.text : 'Gone with the last edits.'}</span>
          </li>
        ))}
      </ul>
      {judged && shown.length === 0 && <p className="soft">Nothing found{only ? ' in this sound' : ''}.</p>}
      {!judged && <p className="soft">Judging …</p>}
    </>
  );
}

function FindingItem({ finding }: { readonly finding: ToldFinding }) {
  const { fix, takeSound, takeDevice } = useShow();
  const [why, setWhy] = useState(false);
  return (
    <li>
      <SeverityMark is={finding.severity} />
      <button
        className="plain title"
        onClick={() => {
          if (finding.at.sound) takeSound(finding.at.sound);
          if (finding.at.device) takeDevice(finding.at.device);
        }}
      >
        {finding.title}
      </button>
      <span className="text">{finding.text}</span>
      <span className="does">
        {finding.fix && (
          <Button variant="default" size="compact-xs" onClick={() => fix(finding)}>
            {finding.fix.label}
          </Button>
        )}
        <button className="linkish" aria-expanded={why} onClick={() => setWhy(!why)}>
          Why?
        </button>
      </span>
      {why && (
        <div className="why">
          {finding.why} <b>{finding.remedy}</b>
          <div className="soft">Source: {finding.source}</div>
        </div>
      )}
    </li>
  );
}
