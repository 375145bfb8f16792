import { ActionIcon, useMantineColorScheme } from '@mantine/core';
import { IconArrowBackUp, IconArrowForwardUp } from '@tabler/icons-react';
import { commands, describeCommand, exportShow, inOrder, type Severity, slotPlace } from '@yunta/core';
import { Fragment, useCallback, useEffect, useState } from 'react';
import { Link, NavLink, Outlet, useNavigate, useParams } from 'react-router';
import { useFindings, useRig, useSaved, useShow } from '../api/rig.tsx';
import type { OpenRig } from '../api/open-rig.ts';
import { download, fileName } from '../ui/download.ts';
import { SeverityMark } from '../ui/SeverityMark.tsx';
import { stations } from '../ui/stations.ts';
import { FindingsDrawer } from './FindingsDrawer.tsx';
import { History } from './History.tsx';
import { Palette, Search } from './Palette.tsx';
import type { PaletteEntry } from './palette-entries.ts';
import { SetAsideEdits } from './SetAsideEdits.tsx';
import { Shortcuts } from './Shortcuts.tsx';

const severities: readonly (readonly [Severity, string])[] = [
  ['stops-the-show', 'stop the show'],
  ['fix-before-load-in', 'to fix'],
  ['worth-knowing', 'to know'],
];

/**
 * Rail, selected sound, findings; the station in the middle. Holds nothing of the rig itself: its parts follow what
 * they show.
 */
export function Shell() {
  const { id = '' } = useParams();
  const rig = useRig();
  const [panel, setPanel] = useState<'keys' | 'commands' | 'history' | null>(null);
  const { colorScheme, setColorScheme } = useMantineColorScheme();
  const toggleColorScheme = () => setColorScheme(colorScheme === 'dark' ? 'light' : 'dark');
  const toggle = useCallback((which: 'keys' | 'commands') => setPanel((open) => (open === which ? null : which)), []);
  return (
    <div className="shell">
      <header className="top">
        <Link to="/" className="brand">
          Yunta
        </Link>
        <div className="rig">
          <RigName /> <SavedState />
        </div>
        <UndoRedo />
        <div className="spring" />
        <SelectedSound />
        <Counts />
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
          <button className="linkish" onClick={() => setPanel('commands')}>
            Commands
          </button>
          <button className="linkish" onClick={() => setPanel('history')}>
            History
          </button>
          <button className="linkish" onClick={() => setPanel('keys')}>
            Shortcuts (?)
          </button>
          <button className="linkish" onClick={() => exportOpen(rig)}>
            Export
          </button>
          <button className="linkish" onClick={toggleColorScheme}>
            {colorScheme === 'dark' ? 'Light' : 'Dark'}
          </button>
        </div>
      </nav>
      <main className="main">
        <Notices />
        <Outlet />
      </main>
      <aside className="side" aria-label="Inspector and findings">
        <FindingsDrawer />
      </aside>
      <Keys toggle={toggle} />
      <Shortcuts open={panel === 'keys'} onClose={() => setPanel(null)} />
      <Palette open={panel === 'commands'} onClose={() => setPanel(null)}>
        {panel === 'commands' && (
          <Commands
            onClose={() => setPanel(null)}
            keys={() => setPanel('keys')}
            history={() => setPanel('history')}
            toggleColorScheme={toggleColorScheme}
          />
        )}
      </Palette>
      <History open={panel === 'history'} onClose={() => setPanel(null)} />
    </div>
  );
}

/** The rig as it stands on the screen, edits not yet saved included; the server need not be there. */
function exportOpen(rig: OpenRig): void {
  const { show } = rig.get();
  download(fileName(show.rig.name, 'yunta.json'), exportShow(show), 'application/json');
}

/** Everything found, by severity. */
function Counts() {
  const { judged } = useFindings();
  return (
    <div className="counts" aria-live="polite" aria-label="Findings">
      {severities.map(([severity, words]) => (
        <span key={severity}>
          <SeverityMark is={severity} />{' '}
          {judged?.findings.filter((finding) => finding.severity === severity).length ?? '…'}{' '}
          <span className="word">{words}</span>
        </span>
      ))}
    </div>
  );
}

function CountOf({ holds }: { readonly holds: (rule: string) => boolean }) {
  const { judged } = useFindings();
  const count = judged?.findings.filter((finding) => holds(finding.ruleId)).length ?? 0;
  return count > 0 ? <span className="num">{count}</span> : null;
}

function Notices() {
  const { store } = useShow();
  const { refusal, notice, keeps, saving } = useSaved();
  return (
    <>
      <SetAsideEdits />
      {saving === 'waiting' && (
        <div className="notice" role="status">
          {keeps
            ? 'The server does not answer. Edits are kept in this browser and sent when it is back.'
            : 'The server does not answer. Leave this window open: edits are sent when it is back.'}
        </div>
      )}
      {!keeps && (
        <div className="notice" role="status">
          This browser keeps nothing (a private window, perhaps): what is not saved yet is lost when you close it.
        </div>
      )}
      {refusal && (
        <div className="refusal" role="alert">
          <span>{refusal}</span>
          <button className="linkish" onClick={() => store.dismiss()}>
            Dismiss
          </button>
        </div>
      )}
      {notice && (
        <div className="notice" role="status">
          <span>{notice}</span>
          <button className="linkish" onClick={() => store.dismiss()}>
            Dismiss
          </button>
        </div>
      )}
    </>
  );
}

function RigName() {
  const { show } = useShow();
  return <b>{show.rig.name}</b>;
}

const savedWords = { saved: 'saved', saving: 'saving …', waiting: 'not saved yet', gone: 'deleted elsewhere' } as const;

function SavedState() {
  const { saving, revision } = useSaved();
  return (
    <span className={saving === 'waiting' || saving === 'gone' ? 'stop' : 'soft'} role="status" data-saving={saving}>
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
  const sounds = inOrder(show.rig.sounds);
  const slot = Object.values(show.rig.slots).find((slot) => slot.sound === sound?.id);
  if (!sound) return <span className="soft">No sound yet: the rig is traced as it powers up</span>;
  return (
    <div className="hand">
      <label htmlFor="selected-sound">Selected sound</label>
      <select id="selected-sound" value={sound.id} onChange={(event) => selectSound(event.target.value)}>
        {sounds.map((sound) => (
          <option key={sound.id} value={sound.id}>
            {sound.name}
          </option>
        ))}
      </select>
      <span className="slot">{slot ? slotPlace(slot) : 'no slot'}</span>
    </div>
  );
}

interface Panels {
  readonly keys: () => void;
  readonly history: () => void;
  readonly toggleColorScheme: () => void;
}

function Commands({ onClose, ...panels }: Panels & { readonly onClose: () => void }) {
  return <Search onClose={onClose} entries={usePalette(panels)} />;
}

/** Stations, sounds, devices and commands, each with what it does. */
function usePalette({ keys, history, toggleColorScheme }: Panels): readonly PaletteEntry[] {
  const { show, store, id, selectSound, selectDevice, run, wiring } = useShow();
  const { undo, redo } = useSaved();
  const go = useNavigate();
  const last = undo.at(-1);
  const next = redo.at(-1);
  const controller = wiring.devices.find((wired) => wired.anatomy.controller);
  const command = (name: string, act: () => void): PaletteEntry => ({ name, kind: 'command', act });
  return [
    ...stations.map(({ to, name }): PaletteEntry => ({
      name,
      kind: 'station',
      act: () => void go(`/rig/${id}/${to}`),
    })),
    ...(last ? [command(`Undo: ${describeCommand(last.command)}`, () => store.undo())] : []),
    ...(next ? [command(`Redo: ${describeCommand(next.command)}`, () => store.redo())] : []),
    ...(controller
      ? [
          command(`Lay the sounds out by role on ${controller.device.name}`, () =>
            run(commands.layOut(show, controller.device.id)),
          ),
        ]
      : []),
    command('Light or dark', toggleColorScheme),
    command('History of this rig', history),
    command('Shortcuts', keys),
    command('All rigs', () => void go('/')),
    ...inOrder(show.rig.sounds).map((sound): PaletteEntry => ({
      name: sound.name,
      kind: 'sound',
      act: () => selectSound(sound.id),
    })),
    ...inOrder(show.rig.devices).map((device): PaletteEntry => ({
      name: device.name,
      kind: 'device',
      act: () => selectDevice(device.id),
    })),
  ];
}

/** Undo, redo, the sound before and the sound after, the stations by number, the panels. */
function Keys({ toggle }: { readonly toggle: (panel: 'keys' | 'commands') => void }) {
  const go = useNavigate();
  const { id, store, show, sound, selectSound } = useShow();
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      const typing =
        event.target instanceof HTMLElement &&
        (event.target.matches('input, textarea, select') || event.target.isContentEditable);
      const command = event.ctrlKey || event.metaKey;
      if (command && event.key.toLowerCase() === 'z' && !typing) {
        event.preventDefault();
        if (event.shiftKey) store.redo();
        else store.undo();
      } else if (command && event.key.toLowerCase() === 'k') {
        event.preventDefault();
        toggle('commands');
      } else if (event.altKey && !command && /^[1-7]$/.test(event.key)) {
        event.preventDefault();
        void go(`/rig/${id}/${stations[Number(event.key) - 1].to}`);
      } else if (command || event.altKey || typing) return;
      else if (event.key === '?') toggle('keys');
      else if (event.key === '[' || event.key === ']') {
        const sounds = inOrder(show.rig.sounds);
        const at = sounds.findIndex((each) => each.id === sound?.id);
        const next = sounds[(at + (event.key === ']' ? 1 : -1) + sounds.length) % sounds.length];
        if (next) selectSound(next.id);
      }
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  }, [store, show, sound, selectSound, toggle, go, id]);
  return null;
}
