import { conventions, describeCommand, inOrder, sheetRows, songRows, worksheet, writeRows } from '@yunta/core';
import { useNavigate } from 'react-router';
import { useRig, useSaved, useShow } from '../api/rig.tsx';
import { conventionWords } from '../stations/overview/convention-words.ts';
import { useSetMidi } from '../stations/set/SongParts.tsx';
import { download, fileName } from '../ui/download.ts';
import { focusNamed } from '../ui/focus-named.ts';
import { stations } from '../ui/stations.ts';
import type { PaletteEntry } from './palette-entries.ts';
import { exportOpen } from './export-open.ts';
import type { Panel } from './panel.ts';

interface Panels {
  readonly onPanel: (panel: Panel) => void;
  readonly onFindings: () => void;
  readonly toggleColorScheme: () => void;
}

/** Stations, sounds, devices, fields, prints, exports and commands, each with what it does. */
export function usePaletteEntries({ onPanel, onFindings, toggleColorScheme }: Panels): readonly PaletteEntry[] {
  const { show, store, id, selectSound, selectDevice, wiring } = useShow();
  const rig = useRig();
  const { undo, redo } = useSaved();
  const saveSetMidi = useSetMidi();
  const navigate = useNavigate();
  const go = (to: string) => void navigate(`/rig/${id}/${to}`);
  const last = undo.at(-1);
  const next = redo.at(-1);
  const command = (name: string, act: () => void): PaletteEntry => ({ name, kind: 'command', act });
  const out = (name: string, act: () => void): PaletteEntry => ({ name, kind: 'export', act });
  /** A field is found by its own name once its station stands there. */
  const field = (name: string, to: string, act: () => void = () => undefined): PaletteEntry => ({
    name,
    kind: 'field',
    act: () => {
      act();
      go(to);
      focusNamed(name);
    },
  });
  const parts = Object.values(show.songbook.parts);
  return [
    ...stations.map(({ to, name }): PaletteEntry => ({ name, kind: 'station', act: () => go(to) })),
    ...(last ? [command(`Undo: ${describeCommand(last.command)}`, () => store.undo())] : []),
    ...(next ? [command(`Redo: ${describeCommand(next.command)}`, () => store.redo())] : []),
    command('Findings', onFindings),
    command('Light or dark', toggleColorScheme),
    command('History of this rig', () => onPanel('history')),
    command('Loops: which piece gets one', () => go('routing?view=loops')),
    command('Variants and moves', () => go('overview?view=variants')),
    command('Shortcuts', () => onPanel('keys')),
    command('All rigs', () => void navigate('/')),
    field('Add a device', 'gear'),
    field('Add a cable', 'routing'),
    field('Add a sound', 'sounds'),
    field('Add a song', 'set'),
    out('Print and export sheets (PDF, CSV, SVG)', () => onPanel('print')),
    out('Export this rig and its songs (JSON)', () => exportOpen(rig)),
    out('Export the songs (CSV)', () =>
      download(fileName(`${show.songbook.name} songs`, 'csv'), writeRows(songRows(show)), 'text/csv'),
    ),
    out('Export the worksheet (CSV)', () =>
      download(
        fileName(`${show.rig.name} worksheet`, 'csv'),
        writeRows(sheetRows(worksheet(show, wiring))),
        'text/csv',
      ),
    ),
    out('Export the set as a MIDI file', saveSetMidi),
    ...inOrder(show.rig.sounds).map((sound): PaletteEntry => ({
      name: sound.name,
      kind: 'sound',
      act: () => selectSound(sound.id),
    })),
    ...inOrder(show.rig.devices).map((device): PaletteEntry => ({
      name: device.name,
      kind: 'device',
      act: () => {
        selectDevice(device.id);
        if (!/\/(gear|routing)$/.test(location.pathname)) go('gear');
      },
    })),
    field('Name of the rig', 'overview'),
    ...(Object.keys(conventions) as (keyof typeof conventions)[]).map((question) =>
      field(conventionWords[question], 'overview'),
    ),
    ...inOrder(show.rig.devices).map((device) => field(`Place of ${device.name}`, 'gear')),
    ...inOrder(show.songbook.songs).flatMap((song) => [
      field(`Tempo of ${song.name}`, 'set'),
      field(`Meter of ${song.name}`, 'set'),
      field(
        `${parts.filter((part) => part.song === song.id).length === 1 ? '1 part' : `${parts.filter((part) => part.song === song.id).length} parts`} of ${song.name}`,
        'set',
      ),
    ]),
    ...inOrder(show.rig.cables).flatMap((cable) => [
      field(`Length of ${cable.tag}`, 'routing'),
      field(`Loom of ${cable.tag}`, 'routing'),
    ]),
  ];
}
