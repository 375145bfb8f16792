export type Shortcut = readonly [keys: string, does: string];

/** What works everywhere. */
export const everywhere: readonly Shortcut[] = [
  ['Ctrl K', 'commands: any station, sound, device, field, print or export by typing'],
  ['Alt 1 – 9', 'the stations, from Overview to Proof'],
  ['Alt 0', 'the findings'],
  ['[ and ]', 'the sound before, the sound after'],
  ['Ctrl Z, Ctrl Shift Z', 'undo, redo'],
  ['Enter, Escape', 'in a field: take what was typed, or give it up'],
  ['?', 'this list'],
];

/** What works on a station besides. */
export const onStation: Readonly<Record<string, readonly Shortcut[]>> = {
  gear: [['↑ ↓', 'walk the pieces']],
  routing: [['← →', 'walk the run']],
  power: [
    ['S', 'give every piece an output'],
    ['↑ ↓', 'walk the pieces'],
  ],
  build: [
    ['← ↑ ↓ →', 'on a piece of the picture: a millimetre; with Shift ten'],
    ['R', 'on a piece: turn it'],
    ['H', 'on a piece: hold it where it is'],
  ],
  sounds: [
    ['← ↑ ↓ →', 'walk the cells; Home and End to the edge, Page Up and Down ten sounds'],
    ['Space', 'on, off; the next choice'],
    ['0 – 9', 'type a number, as its panel shows it; Enter takes it'],
    ['Delete', 'don’t care'],
    ['a – z', 'go to the sound that begins so'],
    ['Shift D', 'copy the sound'],
    ['Shift B', 'build a sound on it'],
    ['Shift H', 'a piece that is off may be heard all the same'],
    ['Shift X', 'mark the sound: an edit goes into all that are marked'],
    ['Alt ↑ ↓', 'move the sound among the others; so does dragging its grip'],
  ],
  program: [
    ['← ↑ ↓ →', 'walk the switches; Page Up and Down a bank, Home and End its ends'],
    ['Space', 'pick up what lies there, put it down; two swap'],
    ['Enter', 'select the sound'],
    ['Delete', 'clear the switch'],
    ['a – z', 'go to the sound that begins so'],
    ['Escape', 'leave it where it was'],
  ],
  set: [
    ['Space, ↑ ↓, Space', 'on a grip: put the song or the part into another place'],
    ['Alt ↑ ↓', 'the same, anywhere in its row'],
  ],
};
