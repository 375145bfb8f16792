import { ActionIcon, useMantineColorScheme } from '@mantine/core';
import { IconArrowBackUp, IconArrowForwardUp } from '@tabler/icons-react';
import { describeCommand, inOrder, slotLabel } from '@yunta/core';
import { Fragment, useState } from 'react';
import { Link, NavLink, Outlet, useLocation, useNavigate, useParams } from 'react-router';
import { useFindings, useRig, useSaved, useShow } from '../api/rig.tsx';
import { DeviceInspector } from '../stations/gear/DeviceInspector.tsx';
import { CellSelect } from '../ui/CellSelect.tsx';
import { LinkButton } from '../ui/LinkButton.tsx';
import { Notice } from '../ui/Notice.tsx';
import { stations } from '../ui/stations.ts';
import { Counts } from './Counts.tsx';
import { exportOpen } from './export-open.ts';
import type { Panel } from './panel.ts';
import { FindingsDrawer } from './FindingsDrawer.tsx';
import { History } from './History.tsx';
import { Palette } from './Palette.tsx';
import { PrintPanel } from './PrintPanel.tsx';
import { SetAsideEdits } from './SetAsideEdits.tsx';
import { Shortcuts } from './Shortcuts.tsx';
import { useFindingsPanel } from './use-findings-panel.ts';
import { useShellKeys } from './use-shell-keys.ts';
import './shell.css';

/**
 * Rail, selected sound, findings; the station in the middle, the inspector of the selected piece beside it. Holds
 * nothing of the rig itself: its parts follow what they show.
 */
export function Shell() {
  const { id = '' } = useParams();
  const { pathname } = useLocation();
  const navigate = useNavigate();
  const station = stations.find(({ to }) => pathname.endsWith(`/${to}`));
  const rig = useRig();
  const [panel, setPanel] = useState<Panel | null>(null);
  const [findings, setFindings] = useFindingsPanel();
  const { colorScheme, setColorScheme } = useMantineColorScheme();
  const toggleColorScheme = () => setColorScheme(colorScheme === 'dark' ? 'light' : 'dark');
  // Overview has the findings in its middle: nothing is shown twice.
  const isOverview = station?.to === 'overview';
  const toggleFindings = () => setFindings(findings === 'shut' ? 'open' : 'shut');
  useShellKeys({ onPanel: (which) => setPanel((open) => (open === which ? null : which)), onFindings: toggleFindings });
  return (
    <div className="shell">
      <header className="top">
        <Link to="/" className="brand">
          Yunta
        </Link>
        <div className="rig">
          <RigName /> <VariantInUse /> <SavedState />
        </div>
        <UndoRedo />
        <div className="spring" />
        <SelectedSound />
        <Counts open={findings !== 'shut' && !isOverview} onToggle={toggleFindings} />
      </header>
      <nav className="rail" aria-label="Stations">
        {stations.map(({ to, name, gap, pieces, holds }) => (
          <Fragment key={to}>
            {gap && <div className="gap" />}
            <NavLink to={`/rig/${id}/${to}`} onClick={() => !pieces && rig.get().selectDevice(null)}>
              <span>{name}</span>
              <CountOf holds={holds} />
            </NavLink>
          </Fragment>
        ))}
        <div className="foot">
          <LinkButton onClick={() => setPanel('commands')}>Commands</LinkButton>
          <LinkButton onClick={() => setPanel('history')}>History</LinkButton>
          <LinkButton onClick={() => void navigate(`/rig/${id}/overview?view=variants`)}>Variants</LinkButton>
          <LinkButton onClick={() => setPanel('keys')}>Shortcuts (?)</LinkButton>
          <LinkButton onClick={() => setPanel('print')}>Print</LinkButton>
          <LinkButton onClick={() => exportOpen(rig)}>Export</LinkButton>
          <LinkButton onClick={toggleColorScheme}>{colorScheme === 'dark' ? 'Light' : 'Dark'}</LinkButton>
        </div>
      </nav>
      <main className="main" id="station">
        <Notices />
        <Outlet context={{ onPrint: () => setPanel('print') }} />
      </main>
      <Side pieces={station?.pieces === true} pinned={findings === 'pinned' && !isOverview}>
        <FindingsDrawer panel={findings} onPanel={setFindings} />
      </Side>
      {findings === 'open' && !isOverview && (
        <aside className="drawer">
          <FindingsDrawer panel={findings} onPanel={setFindings} />
        </aside>
      )}
      <Shortcuts open={panel === 'keys'} station={station?.to ?? ''} onClose={() => setPanel(null)} />
      <Palette
        open={panel === 'commands'}
        onClose={() => setPanel(null)}
        onPanel={setPanel}
        onFindings={toggleFindings}
        toggleColorScheme={toggleColorScheme}
      />
      <PrintPanel open={panel === 'print'} onClose={() => setPanel(null)} />
      <History open={panel === 'history'} onClose={() => setPanel(null)} />
    </div>
  );
}

/** The selected piece where one works on pieces, and the findings while they are pinned. */
function Side({
  pieces,
  pinned,
  children,
}: {
  readonly pieces: boolean;
  readonly pinned: boolean;
  readonly children: React.ReactNode;
}) {
  const { device } = useShow();
  const inspects = pieces && device !== null;
  if (!inspects && !pinned) return null;
  return (
    <aside className="side" aria-label={inspects ? 'Inspector' : 'Pinned'}>
      {inspects && <DeviceInspector key={device} id={device} />}
      {pinned && children}
    </aside>
  );
}

function CountOf({ holds }: { readonly holds: (rule: string) => boolean }) {
  const { judged } = useFindings();
  const count = judged?.findings.filter((finding) => holds(finding.ruleId)).length ?? 0;
  return count > 0 ? (
    <span className="num" title={`${count} found`}>
      {count}
    </span>
  ) : null;
}

function Notices() {
  const { store } = useShow();
  const { refusal, notice, keeps, saving } = useSaved();
  const dismiss = () => store.dismiss();
  return (
    <>
      <SetAsideEdits />
      {saving === 'waiting' && (
        <Notice>
          {keeps
            ? 'The server does not answer. Edits are kept in this browser and sent when it is back.'
            : 'The server does not answer. Leave this window open: edits are sent when it is back.'}
        </Notice>
      )}
      {!keeps && (
        <Notice>
          This browser keeps nothing (a private window, perhaps): what is not saved yet is lost when you close it.
        </Notice>
      )}
      {refusal && (
        <Notice tone="refusal" onDismiss={dismiss}>
          {refusal}
        </Notice>
      )}
      {notice && <Notice onDismiss={dismiss}>{notice}</Notice>}
    </>
  );
}

function RigName() {
  const { show } = useShow();
  return <b>{show.rig.name}</b>;
}

/** Which variant is looked at and edited: nobody takes it for the rig itself. */
function VariantInUse() {
  const rig = useRig();
  const { base, variant, conflicts } = useSaved();
  const variants = inOrder(base.rig.variants ?? {});
  if (variants.length === 0) return null;
  return (
    <span className={variant === null ? 'variant' : 'variant other'}>
      <CellSelect
        label="Variant in use"
        value={variant ?? ''}
        choices={[
          { value: '', label: 'the rig itself' },
          ...variants.map((each) => ({ value: each.id, label: each.name })),
        ]}
        onPick={(id) => rig.chooseVariant(id === '' ? null : id)}
      />
      {conflicts.length > 0 && (
        <Link to={`/rig/${rig.id}/overview?view=variants`} className="num" title="The rig has changed under it">
          {conflicts.length} to settle
        </Link>
      )}
    </span>
  );
}

const savedWords = { saved: 'saved', saving: 'saving …', waiting: 'not saved yet', gone: 'deleted elsewhere' } as const;

function SavedState() {
  const { saving, revision } = useSaved();
  return (
    <span
      className={`savedstate ${saving === 'waiting' || saving === 'gone' ? 'stop' : 'soft'}`}
      role="status"
      data-saving={saving}
    >
      revision {revision}, {savedWords[saving]}
    </span>
  );
}

function UndoRedo() {
  const { store } = useShow();
  const { undo, redo } = useSaved();
  const last = undo.at(-1);
  const next = redo.at(-1);
  const undoes = last ? `Undo: ${describeCommand(last.command)}` : 'Nothing to undo';
  const redoes = next ? `Redo: ${describeCommand(next.command)}` : 'Nothing to redo';
  return (
    <div style={{ display: 'flex', gap: 2 }}>
      <ActionIcon
        variant="subtle"
        color="gray"
        disabled={!last}
        onClick={() => store.undo()}
        aria-label={undoes}
        title={undoes}
      >
        <IconArrowBackUp size={18} />
      </ActionIcon>
      <ActionIcon
        variant="subtle"
        color="gray"
        disabled={!next}
        onClick={() => store.redo()}
        aria-label={redoes}
        title={redoes}
      >
        <IconArrowForwardUp size={18} />
      </ActionIcon>
    </div>
  );
}

function SelectedSound() {
  const { show, sound, selectSound } = useShow();
  const slot = Object.values(show.rig.slots).find((slot) => slot.sound === sound?.id);
  const isByFeet = Object.values(show.rig.casting).some((cast) => cast.sound !== undefined && cast.sound === sound?.id);
  if (!sound) return <span className="soft">No sound yet: the rig is traced as it powers up</span>;
  return (
    <div className="hand">
      <span className="label" aria-hidden="true">
        Selected sound
      </span>
      <CellSelect
        label="Selected sound"
        value={sound.id}
        choices={inOrder(show.rig.sounds).map((each) => ({ value: each.id, label: each.name }))}
        onPick={selectSound}
      />
      <span className="slot num">{slot ? slotLabel(slot) : isByFeet ? 'by feet' : 'no slot'}</span>
    </div>
  );
}
