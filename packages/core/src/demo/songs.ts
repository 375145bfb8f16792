import type { NoteValue } from '../model/rig.ts';

/** The quintet's songbook, invented; each part names the sound that plays it. */
export interface DemoSong {
  readonly name: string;
  readonly tempo: number | null;
  readonly meter?: { readonly beats: number; readonly unit: 2 | 4 | 8 | 16 };
  readonly instrument?: string;
  readonly tuning?: string;
  /** Part, bars, sound; a sound of the song's own is named by its part alone. */
  readonly parts: readonly (readonly [part: string, bars: number, sound?: string])[];
}

const waltz = { beats: 3, unit: 4 } as const;
const six = { beats: 6, unit: 8 } as const;
const guitar = 'Guitar';
const baritone = 'Baritone guitar';

export const demoSongs: readonly DemoSong[] = [
  {
    name: 'Slow Lock',
    tempo: 84,
    instrument: guitar,
    parts: [
      ['verse', 16],
      ['chorus', 8],
      ['bridge', 8],
    ],
  },
  {
    name: 'Ferry Bell',
    tempo: 112,
    instrument: guitar,
    parts: [
      ['verse', 24],
      ['solo', 16],
    ],
  },
  {
    name: 'Copper Evening',
    tempo: 96,
    instrument: guitar,
    parts: [
      ['verse', 16],
      ['chorus', 12],
    ],
  },
  {
    name: 'Third Landing',
    tempo: 70,
    instrument: guitar,
    parts: [
      ['intro', 4],
      ['chorus', 16],
    ],
  },
  { name: 'Paper Harbour', tempo: 128, instrument: guitar, parts: [['all', 64]] },
  {
    name: 'Night Pilot',
    tempo: 104,
    instrument: guitar,
    tuning: 'D A D G B E',
    parts: [
      ['verse', 16],
      ['solo', 12],
    ],
  },
  {
    name: 'Low Water',
    tempo: 88,
    instrument: guitar,
    parts: [
      ['verse', 16],
      ['chorus', 8],
    ],
  },
  {
    name: 'Salt Letters',
    tempo: 76,
    meter: waltz,
    instrument: guitar,
    parts: [
      ['verse', 24],
      ['solo', 24],
    ],
  },
  {
    name: 'Long Wharf',
    tempo: 118,
    instrument: guitar,
    parts: [
      ['verse', 16],
      ['chorus', 8],
      ['solo', 16],
    ],
  },
  {
    name: 'Tide Table',
    tempo: 92,
    meter: six,
    instrument: guitar,
    parts: [
      ['verse', 16],
      ['chorus', 16],
    ],
  },
  {
    name: 'Lantern Row',
    tempo: 66,
    instrument: guitar,
    parts: [
      ['intro', 8],
      ['verse', 24],
    ],
  },
  {
    name: 'Old Ballast',
    tempo: 100,
    instrument: baritone,
    tuning: 'B E A D F# B',
    parts: [
      ['verse', 16],
      ['chorus', 8],
    ],
  },
  {
    name: 'Sand Bar',
    tempo: null,
    instrument: guitar,
    parts: [
      ['verse', 16],
      ['solo', 8],
    ],
  },
  { name: 'Quay Waltz', tempo: 138, meter: waltz, instrument: guitar, parts: [['all', 96]] },
  {
    name: 'Pump Milonga',
    tempo: 120,
    meter: six,
    instrument: guitar,
    parts: [
      ['verse', 16],
      ['chorus', 16],
      ['bridge', 8],
    ],
  },
  {
    name: 'Blue Bollard',
    tempo: 80,
    instrument: guitar,
    parts: [
      ['verse', 12],
      ['solo', 24],
    ],
  },
  { name: 'Rope Walk', tempo: 132, instrument: baritone, tuning: 'B E A D F# B', parts: [['all', 72]] },
  {
    name: 'Last Lock',
    tempo: 72,
    instrument: guitar,
    parts: [
      ['verse', 16],
      ['chorus', 8],
      ['outro', 16],
    ],
  },
];

/** Two nights: the long one, and the short one on a landing stage. */
export const demoSetLists: readonly { readonly name: string; readonly songs: readonly string[] }[] = [
  { name: 'Evening on the boat', songs: demoSongs.map((song) => song.name) },
  {
    name: 'Landing stage, short',
    songs: [
      'Ferry Bell',
      'Paper Harbour',
      'Night Pilot',
      'Long Wharf',
      'Old Ballast',
      'Pump Milonga',
      'Blue Bollard',
      'Last Lock',
    ],
  },
];

/** What a sound is made of, in words that both rigs understand. */
export interface DemoSound {
  readonly name: string;
  readonly role: string;
  readonly on: readonly ('comp' | 'drive-1' | 'drive-2' | 'chorus' | 'echo' | 'hall')[];
  readonly channel: 'clean' | 'lead';
  /** Presets as sent. */
  readonly echo?: number;
  readonly hall?: number;
  /** Selector and volume: what the hands do. */
  readonly hands?: 'neck' | 'middle' | 'bridge';
  readonly volume?: number;
}

export const demoSounds: readonly DemoSound[] = [
  {
    name: 'Slow Lock, verse',
    role: 'clean',
    on: ['comp', 'hall'],
    channel: 'clean',
    hall: 2,
    hands: 'neck',
    volume: 6,
  },
  {
    name: 'Slow Lock, chorus',
    role: 'chorus',
    on: ['drive-1', 'echo', 'hall'],
    channel: 'lead',
    echo: 5,
    hall: 2,
    hands: 'bridge',
  },
  {
    name: 'Slow Lock, bridge',
    role: 'colour',
    on: ['chorus', 'echo', 'hall'],
    channel: 'clean',
    echo: 13,
    hall: 7,
    hands: 'neck',
  },
  { name: 'Ferry Bell, verse', role: 'rhythm', on: ['drive-1'], channel: 'clean', hands: 'middle' },
  {
    name: 'Ferry Bell, solo',
    role: 'solo',
    on: ['drive-1', 'drive-2', 'echo'],
    channel: 'lead',
    echo: 6,
    hands: 'bridge',
  },
  {
    name: 'Copper Evening, verse',
    role: 'clean',
    on: ['comp', 'echo', 'hall'],
    channel: 'clean',
    echo: 5,
    hall: 2,
    hands: 'neck',
    volume: 6,
  },
  {
    name: 'Copper Evening, chorus',
    role: 'chorus',
    on: ['drive-1', 'echo', 'hall'],
    channel: 'lead',
    echo: 5,
    hall: 2,
    hands: 'bridge',
  },
  {
    name: 'Third Landing, intro',
    role: 'colour',
    on: ['chorus', 'hall'],
    channel: 'clean',
    hall: 8,
    hands: 'neck',
    volume: 4,
  },
  { name: 'Third Landing, chorus', role: 'chorus', on: ['drive-2', 'hall'], channel: 'lead', hall: 2, hands: 'bridge' },
  {
    name: 'Paper Harbour, all',
    role: 'rhythm',
    on: ['comp', 'drive-1', 'hall'],
    channel: 'clean',
    hall: 3,
    hands: 'bridge',
  },
  {
    name: 'Night Pilot, verse',
    role: 'clean',
    on: ['comp', 'chorus', 'hall'],
    channel: 'clean',
    hall: 3,
    hands: 'middle',
  },
  {
    name: 'Night Pilot, solo',
    role: 'solo',
    on: ['drive-2', 'echo', 'hall'],
    channel: 'lead',
    echo: 6,
    hall: 4,
    hands: 'bridge',
  },
  { name: 'Low Water, verse', role: 'rhythm', on: ['drive-1', 'echo'], channel: 'clean', echo: 9, hands: 'middle' },
  { name: 'Low Water, chorus', role: 'chorus', on: ['drive-1', 'drive-2'], channel: 'lead', hands: 'bridge' },
  {
    name: 'Salt Letters, verse',
    role: 'clean',
    on: ['echo', 'hall'],
    channel: 'clean',
    echo: 10,
    hall: 2,
    hands: 'neck',
    volume: 7,
  },
  {
    name: 'Salt Letters, solo',
    role: 'solo',
    on: ['drive-2', 'echo', 'hall'],
    channel: 'lead',
    echo: 5,
    hall: 4,
    hands: 'neck',
  },
  { name: 'Long Wharf, verse', role: 'rhythm', on: ['drive-1', 'hall'], channel: 'clean', hall: 1, hands: 'bridge' },
  { name: 'Long Wharf, chorus', role: 'chorus', on: ['drive-1', 'hall'], channel: 'lead', hall: 1, hands: 'bridge' },
  {
    name: 'Long Wharf, solo',
    role: 'solo',
    on: ['drive-1', 'echo', 'hall'],
    channel: 'lead',
    echo: 6,
    hall: 1,
    hands: 'bridge',
  },
  { name: 'Tide Table, verse', role: 'clean', on: ['comp', 'echo'], channel: 'clean', echo: 11, hands: 'middle' },
  {
    name: 'Tide Table, chorus',
    role: 'chorus',
    on: ['drive-2', 'echo', 'hall'],
    channel: 'lead',
    echo: 11,
    hall: 5,
    hands: 'bridge',
  },
  {
    name: 'Lantern Row, intro',
    role: 'colour',
    on: ['comp', 'chorus', 'echo', 'hall'],
    channel: 'clean',
    echo: 13,
    hall: 8,
    hands: 'neck',
    volume: 5,
  },
  {
    name: 'Lantern Row, verse',
    role: 'clean',
    on: ['comp', 'hall'],
    channel: 'clean',
    hall: 6,
    hands: 'neck',
    volume: 7,
  },
  { name: 'Old Ballast, verse', role: 'rhythm', on: ['drive-2'], channel: 'clean', hands: 'bridge' },
  { name: 'Old Ballast, chorus', role: 'chorus', on: ['drive-2', 'hall'], channel: 'lead', hall: 5, hands: 'bridge' },
  {
    name: 'Sand Bar, verse',
    role: 'clean',
    on: ['comp', 'chorus', 'echo'],
    channel: 'clean',
    echo: 5,
    hands: 'middle',
  },
  {
    name: 'Sand Bar, solo',
    role: 'solo',
    on: ['drive-1', 'echo', 'hall'],
    channel: 'lead',
    echo: 9,
    hall: 3,
    hands: 'neck',
  },
  { name: 'Quay Waltz, all', role: 'rhythm', on: ['comp', 'hall'], channel: 'clean', hall: 4, hands: 'middle' },
  {
    name: 'Pump Milonga, verse',
    role: 'rhythm',
    on: ['comp', 'drive-1', 'echo'],
    channel: 'clean',
    echo: 9,
    hands: 'middle',
  },
  {
    name: 'Pump Milonga, chorus',
    role: 'chorus',
    on: ['drive-1', 'echo', 'hall'],
    channel: 'lead',
    echo: 9,
    hall: 3,
    hands: 'bridge',
  },
  {
    name: 'Pump Milonga, bridge',
    role: 'colour',
    on: ['chorus', 'echo', 'hall'],
    channel: 'clean',
    echo: 9,
    hall: 7,
    hands: 'neck',
  },
  {
    name: 'Blue Bollard, verse',
    role: 'clean',
    on: ['comp', 'echo', 'hall'],
    channel: 'clean',
    echo: 10,
    hall: 3,
    hands: 'neck',
  },
  {
    name: 'Blue Bollard, solo',
    role: 'solo',
    on: ['drive-1', 'drive-2', 'hall'],
    channel: 'lead',
    hall: 4,
    hands: 'neck',
    volume: 9,
  },
  { name: 'Rope Walk, all', role: 'rhythm', on: ['drive-1', 'drive-2'], channel: 'clean', hands: 'bridge' },
  {
    name: 'Last Lock, verse',
    role: 'clean',
    on: ['comp', 'chorus', 'echo', 'hall'],
    channel: 'clean',
    echo: 5,
    hall: 6,
    hands: 'neck',
    volume: 6,
  },
  {
    name: 'Last Lock, chorus',
    role: 'chorus',
    on: ['drive-2', 'echo', 'hall'],
    channel: 'lead',
    echo: 5,
    hall: 6,
    hands: 'bridge',
  },
  {
    name: 'Last Lock, outro',
    role: 'colour',
    on: ['chorus', 'echo', 'hall'],
    channel: 'clean',
    echo: 13,
    hall: 8,
    hands: 'neck',
    volume: 3,
  },
];

/** What the echo stores, by number as sent: name, mix, and the part of the beat that it keeps. */
export const echoPresets: readonly (readonly [number: number, name: string, mix: number, sync?: NoteValue])[] = [
  [5, 'Dotted, dark', 30, 'dotted-eighth'],
  [6, 'Dotted, loud', 48, 'dotted-eighth'],
  [9, 'Quarter, short', 26, 'quarter'],
  [10, 'Slap, dry', 22],
  [11, 'Eighths, wide', 34, 'eighth'],
  [13, 'Long, swelling', 70],
];
