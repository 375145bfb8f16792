import type { Command } from './commands.ts';

type Facts = Command['command']['facts'];

const words: Readonly<Record<string, (facts: Facts) => string>> = {
  'add-device': (f) => `Add ${f.device}`,
  'remove-device': (f) => `Remove ${f.device}`,
  'set-device': (f) => `Change ${f.device}`,
  connect: (f) => `Connect ${f.from} to ${f.to}`,
  disconnect: (f) => `Unplug ${f.cable}`,
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
  'set-part': (f) => `Change part ${f.part}`,
  'move-part': (f) => `Move part ${f.part}`,
  'move-sound': (f) => `Move ${f.sound}`,
  'add-set-list': (f) => `Add set list ${f.list}`,
  'set-set-list': (f) => `Change set list ${f.list}`,
  'remove-set-list': (f) => `Remove set list ${f.list}`,
  'choose-set-list': (f) => `Play ${f.list}`,
  'set-school': (f) => `Choose ${f.side}`,
  waive: (f) => `Accept: ${f.title}`,
  unwaive: (f) => `Reopen: ${f.title}`,
  'want-in-all': (f) => `Change ${f.device} in ${f.count} sounds`,
  'set-preset': (f) => `Change preset of ${f.device}`,
  'add-place': (f) => `Add place ${f.place}`,
  'set-cast': (f) => `Change what the feet do in ${f.part}`,
  'import-songs': (f) => `Import ${f.count} ${f.count === 1 ? 'song' : 'songs'}`,
  'import-set-list': (f) => `Import set list ${f.list}`,
  cast: (f) => `Cast part ${f.part}`,
  rename: (f) => `Rename to ${f.name}`,
  fix: (f) => `${f.label}`,
  'restore-revision': (f) => `Restore revision ${f.name}`,
  repair: (f) => `Repair ${f.count} stored ${f.count === 1 ? 'fault' : 'faults'}`,
  undo: (f) => `Undo: ${f.of}`,
};

/** A named edit in words, for undo and the history. */
export const describeCommand = ({ name, facts }: Command['command']): string => words[name]?.(facts) ?? name;
