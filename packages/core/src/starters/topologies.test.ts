import { expect, test } from '@jest/globals';
import { contextOf } from '../check/engine.ts';
import type { StarterId } from './starters.ts';
import { starterById } from './starters.ts';

/**
 * What each topology does, in a sentence, and by sound the line that follows from it: what stands side by side in a
 * bracket is heard at the same time.
 */
const expected: Readonly<Partial<Record<StarterId, { readonly says: string; readonly lines: readonly string[] }>>> = {
  'insert-after-drives': {
    says: 'Volume and boost stand after the drives and before the echoes, in every sound.',
    lines: [
      'Clean: Guitar, Tuner, Switcher, Compressor, Switcher, Volume, Boost, Switcher, Chorus, Switcher, Amp, Cabinet',
      'Rhythm: Guitar, Tuner, Switcher, Drive soft, Switcher, Volume, Boost, Switcher, Amp, Cabinet',
      'Solo: Guitar, Tuner, Switcher, Drive hard, Switcher, Volume, Boost, Switcher, Delay, Switcher, Amp, Cabinet',
    ],
  },
  'two-guitars': {
    says: 'One of the two instruments is heard, the acoustic through its own equaliser; amp and desk hear the same.',
    lines: [
      'Acoustic: Acoustic, Acoustic preamp, Selector, Tuner, Switcher, Compressor, Switcher, Reverb, Switcher, Direct box, [Amp Desk], Cabinet',
      'Rhythm: Guitar, Selector, Tuner, Switcher, Drive, Switcher, Direct box, [Amp Desk], Cabinet',
      'Solo: Guitar, Selector, Tuner, Switcher, Drive, Switcher, Delay, Switcher, Direct box, [Amp Desk], Cabinet',
    ],
  },
  'effect-twice': {
    says: 'The multi-effect comes before the drive in one sound and after it in another, never twice.',
    lines: [
      'Swirl into the drive: Guitar, Tuner, Switcher, Multi, Switcher, Drive soft, Switcher, Amp, Cabinet',
      'Drive into the echo: Guitar, Tuner, Switcher, Drive hard, Switcher, Multi, Switcher, Amp, Cabinet',
      'Plain: Guitar, Tuner, Switcher, Amp, Cabinet',
    ],
  },
  'stereo-amps': {
    says: 'Mono up to the chorus, stereo behind it, one side to each amp.',
    lines: [
      'Clean: Guitar, Tuner, Switcher, Compressor, Switcher, Chorus =, Switcher, [Amp left Amp right], [Cabinet left Cabinet right]',
      'Rhythm: Guitar, Tuner, Switcher, Drive, Switcher, [Amp left Amp right], [Cabinet left Cabinet right]',
      'Solo: Guitar, Tuner, Switcher, Drive, Switcher =, Delay =, Switcher =, Reverb =, Switcher, [Amp left Amp right], [Cabinet left Cabinet right]',
    ],
  },
  'three-amps': {
    says: 'One amp at a time, with its own cabinet.',
    lines: [
      'Clean: Guitar, Tuner, Switcher, Compressor, Switcher, Router, Clean amp, Clean cabinet',
      'Crunch: Guitar, Tuner, Switcher, Router, Crunch amp, Crunch cabinet',
      'Lead: Guitar, Tuner, Switcher, Boost, Switcher, Router, Lead amp, Lead cabinet',
    ],
  },
  'wet-dry': {
    says: 'Behind the amp the dry cabinet and the wet side part; only the wet side is stereo.',
    lines: ['Clean, wide', 'Lead'].map(
      (name) =>
        `${name}: Guitar, Tuner, Drive, Amp, Tap box, [Dry cabinet Wet level], Reverb =, Power amp =, Wet cabinet`,
    ),
  },
  'bass-two-lines': {
    says: 'Both lines to the desk are heard in every sound; the stage of the drive is what changes.',
    lines: ['Round', 'Growl'].map(
      (name) => `${name}: Bass, Tuner, [Direct box Drive], [Clean line Cabinet simulation], Driven line`,
    ),
  },
  'band-split': {
    says: 'The drive hangs on the high band of the split; low and high meet in it again before the simulation.',
    lines: [
      'Fingers: Bass, Tuner, Switcher, Compressor, Switcher, Split, Drive, Split, Cabinet simulation, Desk',
      'Driven: Bass, Tuner, Switcher, Split, Drive, Split, Cabinet simulation, Desk',
      'Deep: Bass, Tuner, Switcher, Octave, Switcher, Split, Drive, Split, Cabinet simulation, Desk',
    ],
  },
  'presets-for-off': {
    says: 'Volume, delay and reverb are passed in every sound; nothing wet in a preset is what off means for the echoes.',
    lines: [
      ['Clean', 'Compressor'],
      ['Rhythm', 'Drive soft'],
      ['Solo', 'Drive hard'],
    ].map(
      ([name, pedal]) => `${name}: Guitar, Tuner, Volume, Switcher, ${pedal}, Switcher, Delay, Reverb, Amp, Cabinet`,
    ),
  },
  'dosed-echo': {
    says: 'The line goes on beside the loop; echo and volume pedal stand in it, and what comes back is added.',
    lines: [
      'Plain: Guitar, Tuner, Switcher, Compressor, Switcher, Amp, Cabinet',
      'Echo by the foot: Guitar, Tuner, Switcher, Drive, Switcher, Echo, Dose, Switcher, Amp, Cabinet',
    ],
  },
  'insert-around-preamp': {
    says: 'Drives, then the amp’s preamp in the insert, then chorus and echoes, then its power amp.',
    lines: [
      'Clean: Guitar, Tuner, Switcher, Compressor, Switcher, Amp, Switcher, Chorus, Switcher, Reverb, Switcher, Amp, Cabinet',
      'Solo: Guitar, Tuner, Switcher, Drive soft, Switcher, Amp, Switcher, Delay, Switcher, Amp, Cabinet',
    ],
  },
  'second-switch': {
    says: 'Pedals in front, the echo always in the amp’s loop; contacts change the drive’s stage and the channel.',
    lines: [
      ['Clean', 'Compressor'],
      ['Crunch', 'Drive'],
      ['Solo', 'Drive'],
    ].map(([name, pedal]) => `${name}: Guitar, Tuner, Switcher, ${pedal}, Switcher, Amp, Echo, Amp, Cabinet`),
  },
  'multi-core': {
    says: 'Three times through the multi-core: to the amp, out of its send, back to its return.',
    lines: ['Clean', 'Solo'].map(
      (name) => `${name}: Guitar, Wah, Drive, Chorus, Tuner, Core, Amp, Core, Delay, Reverb, Core, Amp, Cabinet`,
    ),
  },
  'stereo-four-cable': {
    says: 'Mono through the left amp’s preamp, stereo behind it, one side to each power amp.',
    lines: [
      'Clean, wide: Guitar, Tuner, Switcher, Compressor, Switcher, Left amp, Switcher, Chorus =, Switcher, [Left amp Right amp], [Left cabinet Right cabinet]',
      'Solo: Guitar, Tuner, Switcher, Left amp, Switcher =, Delay =, Switcher, [Left amp Right amp], [Left cabinet Right cabinet]',
    ],
  },
  'wet-dry-wet': {
    says: 'The dry cabinet behind the tap; echo and room behind its line out, left and right of it.',
    lines: ['Clean, wide', 'Lead'].map(
      (name) =>
        `${name}: Guitar, Tuner, Drive, Amp, Tap box, [Dry cabinet Delay =], Reverb =, Power, [Left cabinet Right cabinet]`,
    ),
  },
  'compact-board': {
    says: 'In and out by the panel at the board’s edge.',
    lines: ['Verse', 'Chorus'].map((name) => `${name}: Guitar, Panel, Compressor, Simulator, Panel, Desk`),
  },
  'high-gain-line': {
    says: 'One line, whatever is on: clean is the distortion off, the simulated cabinet never is.',
    lines: ['Clean', 'Wall'].map((name) => `${name}: Guitar, Boost, Distortion, Gate, Multi, Loader, Desk`),
  },
  'hub-with-group': {
    says: 'The group hangs in the first loop of the modeller, as its preset says; the second loop is left free.',
    lines: [
      'Plain: Guitar, Box, Hub, Echo, Room, Box, Amp, Cabinet',
      'Layers: Guitar, Box, Hub, Looper, Octave, Hub, Echo, Room, Box, Amp, Cabinet',
    ],
  },
  'loop-in-loop': {
    says: 'The switcher’s first loop leads into the modeller, whose own loop leads back; or the modeller goes out at once.',
    lines: [
      'Through the drive: Guitar, Tuner, Switcher, Hub, Switcher, Drive, Switcher, Hub, [Left amp Right amp], [Left cabinet Right cabinet]',
      'Around it: Guitar, Tuner, Switcher, Hub, [Left amp Right amp], [Left cabinet Right cabinet]',
    ],
  },
  'stored-order': {
    says: 'The slot says which loop comes first: the echo behind the drive in one sound, before it in another.',
    lines: [
      'Clean: Guitar, Tuner, Switcher, Compressor, Switcher, Chorus, Switcher, Amp, Cabinet',
      'Echo behind the drive: Guitar, Tuner, Switcher, Drive, Switcher, Echo, Switcher, Amp, Cabinet',
      'Echo into the drive: Guitar, Tuner, Switcher, Echo, Switcher, Drive, Switcher, Amp, Cabinet',
    ],
  },
  'modeller-in-the-middle': {
    says: 'One line through the booster, the drive whether on or off, the modeller, the reverb, to the desk.',
    lines: ['Clean', 'Lead'].map((name) => `${name}: Guitar, Boost, Drive, Hub, Hall, Box, Desk`),
  },
  'silent-stage': {
    says: 'The delay hangs in the simulator’s loop: passed in one preset, not in the other; stereo from the room on.',
    lines: [
      'Clean: Guitar, Tuner, Compressor, Wah, Drive, Simulator =, Desk stereo',
      'Lead: Guitar, Tuner, Compressor, Wah, Drive, Simulator, Echo, Simulator =, Desk stereo',
    ],
  },
  'one-move': {
    says: 'The line is the same in both: what moves is inside the multi-effect.',
    lines: ['Verse', 'Solo'].map((name) => `${name}: Guitar, Tuner, Multi, Amp, Cabinet`),
  },
  'modeller-as-hub': {
    says: 'The chorus hangs in the first loop, as the preset says; the second loop waits at the edge.',
    lines: [
      'Plain: Guitar, Panel, Drive, Hub =, Desk stereo',
      'Wide: Guitar, Panel, Drive, Hub, Chorus, Hub =, Desk stereo',
    ],
  },
  'small-amp-less': {
    says: 'The gate comes right behind the drive, and only with it; the preamp is passed in every sound.',
    lines: [
      'Clean: Guitar, Tuner, Switcher, Compressor, Switcher, Preamp, Box, Desk',
      'Driven: Guitar, Tuner, Switcher, Drive, Switcher, Gate, Switcher, Preamp, Box, Desk',
    ],
  },
  'looping-hub': {
    says: 'Until something is recorded the line goes through the station; percussion is heard where the memory lets it in.',
    lines: [
      'Alone: Guitar, Pick, Tuner, Amp, Station, Amp, Cabinet',
      'Layers: [Guitar Percussion], Pick, Tuner, Amp, Station, Amp, Cabinet',
    ],
  },
};

test.each(Object.entries(expected))('%s', (id, { lines }) => {
  const show = starterById(id as StarterId).make('rig', 'Rig');
  const { tracer } = contextOf(show);
  const told = Object.values(show.rig.sounds).map((sound) => {
    const { passes, widths } = tracer.trace(sound);
    const columns = [...new Set(passes.map(({ column }) => column))].map((column) => {
      const here = passes.filter((pass) => pass.column === column);
      const names = here.map(
        ({ device, index }) =>
          show.rig.devices[device].name + (widths.links[index]?.includes('stereo') === true ? ' =' : ''),
      );
      return names.length === 1 ? names[0] : `[${names.join(' ')}]`;
    });
    expect(widths.collapses).toEqual([]);
    return `${sound.name}: ${columns.join(', ')}`;
  });
  expect(told).toEqual(lines);
});

test('a stereo rig laid out by its starter is told by each of its two amps alone as one side', () => {
  const show = starterById('stereo-amps').make('rig', 'Rig');
  const { passes, widths } = contextOf(show).tracer.trace(show.rig.sounds.solo);
  const into = (name: string) =>
    passes.flatMap((pass) =>
      pass.next.flatMap((next, i) =>
        show.rig.devices[passes[next].device].name === name ? [widths.links[pass.index][i]] : [],
      ),
    );
  expect([into('Amp left'), into('Amp right')]).toEqual([['left'], ['right']]);
});
