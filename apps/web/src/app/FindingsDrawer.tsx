import { ActionIcon, Button, Checkbox, TextInput } from '@mantine/core';
import { IconPin, IconPinnedOff, IconX } from '@tabler/icons-react';
import { commands, freshId } from '@yunta/core';
import { memo, useEffect, useRef, useState } from 'react';
import { keyOfFinding } from '../api/judged-show.ts';
import type { OpenShow } from '../api/open-rig.ts';
import { useFindings, useShow } from '../api/rig.tsx';
import { FindingLine } from '../ui/FindingLine.tsx';
import { Fold } from '../ui/Fold.tsx';
import { LinkButton } from '../ui/LinkButton.tsx';
import { SeverityMark } from '../ui/SeverityMark.tsx';
import type { Judged, ToldFinding } from '../workers/judge-types.ts';
import { type FindingGroup, groupsOf } from './finding-groups.ts';
import type { FindingsPanel } from './use-findings-panel.ts';

/** So many of a group are shown at once. */
const mostOfGroup = 4;

/** What is found, by rule, the worst first. */
export function FindingsDrawer({
  panel,
  onPanel,
}: {
  readonly panel: FindingsPanel;
  readonly onPanel: (panel: FindingsPanel) => void;
}) {
  const { sound, selectFinding, fix } = useShow();
  const { judged, gone } = useFindings();
  const [only, setOnly] = useState(false);
  const heading = useRef<HTMLHeadingElement>(null);
  useEffect(() => {
    if (panel === 'open') heading.current?.focus();
  }, [panel]);
  const all = judged?.findings ?? [];
  const concerns = (finding: ToldFinding) => finding.at.sound === undefined || finding.at.sound === sound?.id;
  const shown = only ? all.filter(concerns) : all;
  return (
    <section
      aria-label="Findings"
      onKeyDown={(event) => {
        if (event.key === 'Escape' && panel === 'open') onPanel('shut');
      }}
    >
      <div className="sectionhead" style={{ marginTop: 0, alignItems: 'center' }}>
        <h2 ref={heading} tabIndex={-1} style={{ outline: 'none' }}>
          Findings
        </h2>
        <span className="tools" style={{ display: 'flex', gap: 4 }}>
          <ActionIcon
            variant="subtle"
            color="gray"
            aria-label={panel === 'pinned' ? 'Unpin the findings' : 'Pin the findings beside the station'}
            title={panel === 'pinned' ? 'Unpin' : 'Pin beside the station'}
            onClick={() => onPanel(panel === 'pinned' ? 'open' : 'pinned')}
          >
            {panel === 'pinned' ? <IconPinnedOff size={16} /> : <IconPin size={16} />}
          </ActionIcon>
          <ActionIcon variant="subtle" color="gray" aria-label="Close the findings" onClick={() => onPanel('shut')}>
            <IconX size={16} />
          </ActionIcon>
        </span>
      </div>
      {sound && all.length > 0 && (
        <Checkbox
          size="xs"
          label={`only what concerns ${sound.name}`}
          checked={only}
          onChange={(event) => setOnly(event.currentTarget.checked)}
        />
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
        {gone.map((finding) => (
          <li key={`gone ${keyOfFinding(finding)}`} className="gone">
            <SeverityMark is="ok" />
            <span className="title">{finding.title}</span>
            <span className="text">Solved. It said: {finding.text}</span>
          </li>
        ))}
        {groupsOf(shown).map((group) => (
          <Group
            key={`${group.severity} ${group.rule} ${group.title}`}
            group={group}
            selectFinding={selectFinding}
            fix={fix}
          />
        ))}
      </ul>
      {judged && shown.length === 0 && (
        <p className="soft">{all.length > 0 ? 'Nothing concerns this sound.' : 'Nothing found.'}</p>
      )}
      {!judged && <p className="soft">Judging …</p>}
      {judged && judged.waived.length > 0 && <Waived waived={judged.waived} />}
    </section>
  );
}

/** One finding, or what one rule found in several places under one title. */
function Group({
  group: { severity, title, findings },
  selectFinding,
  fix,
}: { readonly group: FindingGroup } & Pick<OpenShow, 'selectFinding' | 'fix'>) {
  const [all, setAll] = useState(false);
  if (findings.length === 1) return <FindingItem finding={findings[0]} selectFinding={selectFinding} fix={fix} />;
  const shown = all ? findings : findings.slice(0, mostOfGroup);
  return (
    <li className="group">
      <SeverityMark is={severity} />
      <span className="title">
        {title} <span className="num soft">{findings.length}</span>
      </span>
      <ul className="places">
        {shown.map((finding) => (
          <FindingItem key={keyOfFinding(finding)} inGroup finding={finding} selectFinding={selectFinding} fix={fix} />
        ))}
      </ul>
      {shown.length < findings.length && (
        <LinkButton style={{ gridColumn: 2, justifySelf: 'start' }} onClick={() => setAll(true)}>
          {findings.length - shown.length} more
        </LinkButton>
      )}
    </li>
  );
}

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
        const id = freshId('waiver', show.rig.waivers ?? {}, 'waiver');
        if (run(commands.waive(show, id, finding.ruleId, finding.at, reason.trim(), finding.title))) onDone();
      }}
    >
      <TextInput
        style={{ flex: 1 }}
        autoFocus
        aria-label={`Why “${finding.title}” may stay`}
        placeholder="why it may stay"
        value={reason}
        onChange={(event) => setReason(event.currentTarget.value)}
        maxLength={500}
      />
      <Button type="submit" variant="default" size="compact-xs">
        Accept for this reason
      </Button>
    </form>
  );
}

/** What follows from a finding, by rule. */
function Following({ findings }: { readonly findings: readonly ToldFinding[] }) {
  return (
    <div style={{ gridColumn: 2 }}>
      <Fold title={`${findings.length} more have the same cause`}>
        <ul className="places">
          {groupsOf(findings).map(({ rule, severity, title, findings: places }) => (
            <li key={`${severity} ${rule} ${title}`}>
              <span>
                <SeverityMark is={severity} size={13} /> {title} <span className="num soft">{places.length}</span>
              </span>
              <span className="soft">{places[0].text}</span>
            </li>
          ))}
        </ul>
      </Fold>
    </div>
  );
}

function Waived({ waived }: { readonly waived: Judged['waived'] }) {
  const { show, run } = useShow();
  return (
    <Fold title={`Accepted: ${waived.length}`}>
      <ul className="findings">
        {waived.map(({ finding, waiver }) => (
          <li key={waiver.id + JSON.stringify(finding.at)}>
            <SeverityMark is={finding.severity} />
            <span className="title">{finding.title}</span>
            <span className="text">
              {finding.text} <i>{waiver.reason}</i>
            </span>
            <span className="does">
              <LinkButton onClick={() => run(commands.unwaive(show, waiver.id, finding.title))}>Reopen</LinkButton>
            </span>
          </li>
        ))}
      </ul>
    </Fold>
  );
}

/** Drawn again only where the finding says something else. */
const FindingItem = memo(function FindingItem({
  finding,
  inGroup = false,
  selectFinding,
  fix,
}: { readonly finding: ToldFinding; readonly inGroup?: boolean } & Pick<OpenShow, 'selectFinding' | 'fix'>) {
  const [why, setWhy] = useState(false);
  const [waiving, setWaiving] = useState(false);
  return (
    <FindingLine finding={finding} textOnly={inGroup} onSelect={() => selectFinding(finding)}>
      <span className="does">
        {finding.fix && (
          <Button variant="default" size="compact-xs" onClick={() => fix(finding)}>
            {finding.fix.label}
          </Button>
        )}
        <LinkButton aria-expanded={why} onClick={() => setWhy(!why)}>
          Why?
        </LinkButton>
        <LinkButton aria-expanded={waiving} onClick={() => setWaiving(!waiving)}>
          Accept
        </LinkButton>
      </span>
      {finding.following.length > 0 && <Following findings={finding.following} />}
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
