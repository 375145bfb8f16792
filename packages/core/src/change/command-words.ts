import type { Command } from './commands.ts';

type Facts = Command['command']['facts'];

const words: Readonly<Record<string, (facts: Facts) => string>> = {
  'add-device': (f) => `Add ${f.device}`,
  'remove-device': (f) => `Remove ${f.device}`,
  'set-device': (f) => `Change ${f.device}`,
  connect: (f) => `Connect ${f.from} to ${f.to}`,
  disconnect: (f) => `Pull ${f.cable}`,
  'set-cable': (f) => `Change cable ${f.cable}`,
  'add-sound': (f) => `Add sound ${f.sound}`,
  'remove-sound': (f) => `Remove sound ${f.sound}`,
  'set-sound': (f) => `Change sound ${f.sound}`,
  want: (f) => `Change ${f.device} in ${f.sound}`,
  'lay-out': (f) => `Lay the sounds on ${f.controller}`,
  'set-slot': (f) => `Change ${f.slot}`,
  'add-song': (f) => `Add song ${f.song}`,
  'add-part': (f) => `Add part ${f.part}`,
  'remove-song': (f) => `Remove song ${f.song}`,
  'remove-part': (f) => `Remove part ${f.part}`,
  'set-song': (f) => `Change song ${f.song}`,
  cast: (f) => `Cast part ${f.part}`,
  rename: (f) => `Rename to ${f.name}`,
  fix: (f) => `${f.label}`,
  undo: (f) => `Undo: ${f.of}`,
};

/** A named edit in words, for undo and the history. */
export const describeCommand = ({ name, facts }: Command['command']): string => words[name]?.(facts) ?? name;
