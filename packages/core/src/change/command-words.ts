import type { Command } from './commands.ts';

type Facts = Command['command']['facts'];

const words: Readonly<Record<string, (facts: Facts) => string>> = {
  'add-device': (f) => `Add ${f.device}`,
  'remove-device': (f) => `Remove ${f.device}`,
  'add-several': (f) => `Add ${f.count} ${f.what}`,
  'add-rig-text': (f) => addedWords(f),
  'set-device': (f) => `Change ${f.device}`,
  'take-type': (f) => `Take revision ${f.revision} of ${f.type} for ${f.device}`,
  'open-device': (f) => `Write out what is inside ${f.device}`,
  'set-anatomy': (f) => `Change the ${f.what} of ${f.device}`,
  connect: (f) => `Connect ${f.from} to ${f.to}`,
  disconnect: (f) => `Unplug ${f.cable}`,
  'set-cable': (f) => `Change cable ${f.cable}`,
  'add-sound': (f) => `Add sound ${f.sound}`,
  'remove-sound': (f) => `Remove sound ${f.sound}`,
  'set-sound': (f) => `Change sound ${f.sound}`,
  want: (f) => `Change ${f.device} in ${f.sound}`,
  'lay-out': (f) => `Lay the sounds on ${f.controller}${f.by === undefined ? '' : ` by ${f.by}`}`,
  'move-slot': (f) => `Move ${f.from} to ${f.to}`,
  'place-sound': (f) => `Put ${f.sound} on ${f.to}`,
  'remove-slot': (f) => `Clear ${f.slot}`,
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
  'set-presets': (f) => `Change ${f.count} ${f.count === 1 ? 'preset' : 'presets'} of ${f.device}`,
  'build-on': (f) => (f.base === 'none' ? `Let ${f.sound} stand on its own` : `Build ${f.sound} on ${f.base}`),
  'put-back': (f) => `Put ${f.sound} back to ${f.base}`,
  'set-twin': (f) => `Change in what ${f.sound} may differ`,
  'twin-bank': (f) => `Make bank ${f.to} the twin of bank ${f.from}`,
  'add-place': (f) => `Add place ${f.place}`,
  'set-place': (f) => `Change place ${f.place}`,
  'remove-place': (f) => `Remove place ${f.place}`,
  'set-setting': (f) => `Change ${settingWords[String(f.field)] ?? 'a setting'}`,
  'add-slot': (f) => `Add ${f.slot} of ${f.controller}`,
  'add-outside': (f) => `Let a program change into ${f.device}`,
  'remove-outside': (f) => `Let no program change into ${f.device}`,
  'rename-songbook': (f) => `Rename the songbook to ${f.name}`,
  'set-cast': (f) => `Change what the feet do in ${f.part}`,
  'import-songs': (f) => `Import ${f.count} ${f.count === 1 ? 'song' : 'songs'}`,
  'import-set-list': (f) => `Import set list ${f.list}`,
  cast: (f) => `Cast part ${f.part}`,
  'set-length-unit': (f) => `Show lengths in ${f.unit === 'ft' ? 'feet' : 'metres'}`,
  rename: (f) => `Rename to ${f.name}`,
  fix: (f) => `${f.label}`,
  'restore-revision': (f) => `Restore revision ${f.name}`,
  repair: (f) => `Repair ${f.count} stored ${f.count === 1 ? 'fault' : 'faults'}`,
  'add-variant': (f) => `Add the variant ${f.name}`,
  'set-variant': (f) => `Change the variant ${f.name}`,
  'remove-variant': (f) => `Remove the variant ${f.name}`,
  'settle-variant': (f) => `Settle ${f.count} ${f.count === 1 ? 'difference' : 'differences'} of ${f.name}`,
  undo: (f) => `Undo: ${f.of}`,
};

const counted = (count: Facts[string], what: string): string => `${count} ${what}${count === 1 ? '' : 's'}`;

const addedWords = ({ devices, cables }: Facts): string =>
  `Add ${[...(devices === 0 ? [] : [counted(devices, 'device')]), ...(cables === 0 ? [] : [counted(cables, 'cable')])].join(' and ')}`;

const settingWords: Readonly<Record<string, string>> = {
  roles: 'the roles of sounds',
  faults: 'which faults are tried',
  messageLimit: 'how many messages one press may send',
  setList: 'the set list that is played',
  conventions: 'the conventions',
  lengthUnit: 'the unit of lengths',
  width: 'what tonight plays to',
};

/** A named edit in words, for undo and the history. */
export const describeCommand = ({ name, facts }: Command['command']): string =>
  (words[name]?.(facts) ?? name) + (facts.variant === undefined ? '' : `, in ${facts.variant}`);
