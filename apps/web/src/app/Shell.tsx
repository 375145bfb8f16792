import { ActionIcon, useMantineColorScheme } from '@mantine/core';
import { IconArrowBackUp, IconArrowForwardUp } from '@tabler/icons-react';
import { describeCommand, inOrder, type Severity } from '@yunta/core';
import { useEffect, useState } from 'react';
import { Link, NavLink, Outlet } from 'react-router';
import { useShow } from '../api/rig.tsx';
import { fileOf } from '../api/shows.ts';
import { SeverityMark } from '../ui/SeverityMark.tsx';
import { FindingsDrawer } from './FindingsDrawer.tsx';
import { Shortcuts } from './Shortcuts.tsx';

const severities: readonly (readonly [Severity, string])[] = [
  ['stops-the-show', 'stop the show'],
  ['fix-before-load-in', 'to fix'],
  ['worth-knowing', 'to know'],
];
const stations = [
  ['routing', 'Routing', 'routing/'],
  ['program', 'Sounds + Program', 'midi/'],
  ['proof', 'Proof', 'recall/'],
] as const;

/** Rail, sound in hand, findings; the station in the middle. */
export function Shell() {
  const { show, judged, refusal, store, id } = useShow();
  const [help, setHelp] = useState(false);
  useShortcuts(() => setHelp((open) => !open));
  const { colorScheme, setColorScheme } = useMantineColorScheme();
  const countOf = (rules: string) => judged?.findings.filter((finding) => finding.ruleId.startsWith(rules)).length ?? 0;
  return (
    <div className="shell">
      <header className="top">
        <Link to="/" className="brand">
          Yunta
        </Link>
        <div className="rig">
          <b>{show.rig.name}</b> <SavedState />
        </div>
        <UndoRedo />
        <div className="spring" />
        <SoundInHand />
        <div className="counts" aria-live="polite" aria-label="Findings">
          {severities.map(([severity, words]) => (
            <span key={severity}>
              <SeverityMark is={severity} /> {judged?.findings.filter((finding) => finding.severity === severity).length ?? '…'} <span className="word">{words}</span>
            </span>
          ))}
        </div>
      </header>
      <nav className="rail" aria-label="Stations">
        {stations.map(([to, name, rules]) => (
          <NavLink key={to} to={`/rig/${id}/${to}`}>
            <span>{name}</span>
            {countOf(rules) > 0 && <span className="num">{countOf(rules)}</span>}
          </NavLink>
        ))}
        <div className="foot">
          <button className="linkish" onClick={() => setHelp(true)}>
            Keys (?)
          </button>
          <a className="linkish" href={fileOf(id)} download>
            Export
          </a>
          <button className="linkish" onClick={() => setColorScheme(colorScheme === 'dark' ? 'light' : 'dark')}>
            {colorScheme === 'dark' ? 'Light' : 'Dark'}
          </button>
        </div>
      </nav>
      <main className="main">
        {refusal && (
          <div className="refusal" role="alert">
            <span>{refusal}</span>
            <button className="linkish" onClick={() => store.dismiss()}>
              Dismiss
            </button>
          </div>
        )}
        <Outlet />
      </main>
      <aside className="side" aria-label="Inspector and findings">
        <FindingsDrawer />
      </aside>
      <Shortcuts open={help} onClose={() => setHelp(false)} />
    </div>
  );
}

const savedWords = { saved: 'saved', saving: 'saving …', waiting: 'not saved: the server does not answer, kept here' } as const;

function SavedState() {
  const { saving, revision } = useShow();
  return (
    <span className={saving === 'waiting' ? 'stop' : 'soft'} role="status" data-saving={saving}>
      revision {revision}, {savedWords[saving]}
    </span>
  );
}

function UndoRedo() {
  const { store, undo, redo } = useShow();
  const last = undo.at(-1);
  const next = redo.at(-1);
  const undoes = last ? `Undo: ${describeCommand(last.command)}` : 'Nothing to undo';
  const redoes = next ? `Redo: ${describeCommand(next.command)}` : 'Nothing to redo';
  return (
    <div style={{ display: 'flex', gap: 2 }}>
      <ActionIcon variant="subtle" color="gray" disabled={!last} onClick={() => store.undo()} aria-label={undoes} title={undoes}>
        <IconArrowBackUp size={18} />
      </ActionIcon>
      <ActionIcon variant="subtle" color="gray" disabled={!next} onClick={() => store.redo()} aria-label={redoes} title={redoes}>
        <IconArrowForwardUp size={18} />
      </ActionIcon>
    </div>
  );
}

function SoundInHand() {
  const { show, sound, takeSound } = useShow();
  const sounds = inOrder(show.rig.sounds);
  const slot = Object.values(show.rig.slots).find((one) => one.sound === sound?.id);
  if (!sound) return <span className="soft">No sound yet: the rig is traced as it powers up</span>;
  return (
    <div className="hand">
      <label htmlFor="sound-in-hand">Sound in hand</label>
      <select id="sound-in-hand" value={sound.id} onChange={(event) => takeSound(event.target.value)}>
        {sounds.map((one) => (
          <option key={one.id} value={one.id}>
            {one.name}
          </option>
        ))}
      </select>
      <span className="slot mono">{slot ? `bank ${slot.bank + 1} · switch ${slot.position + 1}` : 'no slot'}</span>
    </div>
  );
}

/** Undo, redo, the sound before and the sound after, the list of keys. */
function useShortcuts(toggleHelp: () => void): void {
  const { store, show, sound, takeSound } = useShow();
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      const typing = event.target instanceof HTMLElement && (event.target.matches('input, textarea, select') || event.target.isContentEditable);
      const command = event.ctrlKey || event.metaKey;
      if (command && event.key.toLowerCase() === 'z' && !typing) {
        event.preventDefault();
        if (event.shiftKey) store.redo();
        else store.undo();
      } else if (command || event.altKey || typing) return;
      else if (event.key === '?') toggleHelp();
      else if (event.key === '[' || event.key === ']') {
        const sounds = inOrder(show.rig.sounds);
        const at = sounds.findIndex((one) => one.id === sound?.id);
        const next = sounds[(at + (event.key === ']' ? 1 : -1) + sounds.length) % sounds.length];
        if (next) takeSound(next.id);
      }
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  }, [store, show, sound, takeSound, toggleHelp]);
}
