import { type CatalogueEntry, entry } from './entry.ts';

export const instruments: readonly CatalogueEntry[] = [
  entry('guitar', 'Guitar', 'instrument', 'instrument electric', 'board', {
    positions: ['bridge', 'middle', 'neck'],
    volume: true,
  }),
  entry('bass', 'Bass', 'instrument', 'instrument electric', 'board', { volume: true }),
  entry('acoustic', 'Acoustic guitar', 'instrument', 'piezo instrument', 'board', { volume: true }),
  entry('keyboard', 'Keyboard', 'instrument', 'piano synth organ instrument', 'board', { volume: true }),
  entry('guitar-single', 'Guitar, single coils', 'instrument', 'instrument electric', 'board', {
    positions: ['bridge', 'bridge and middle', 'middle', 'middle and neck', 'neck'],
    volume: true,
  }),
  entry('guitar-humbucker', 'Guitar, humbuckers', 'instrument', 'instrument electric two pickup', 'board', {
    positions: ['bridge', 'both', 'neck'],
    volume: true,
  }),
  entry('baritone', 'Baritone guitar', 'instrument', 'instrument electric low', 'board', {
    positions: ['bridge', 'middle', 'neck'],
    volume: true,
  }),
  entry('lap-steel', 'Lap steel', 'instrument', 'instrument electric slide', 'board', { volume: true }),
  entry('bass-5', 'Bass, five strings', 'instrument', 'instrument electric low', 'board', { volume: true }),
  entry('upright', 'Upright bass, piezo', 'instrument', 'instrument double contrabass', 'board', { volume: true }),
  entry('violin', 'Violin, piezo', 'instrument', 'instrument fiddle viola cello', 'board', { volume: true }),
  entry('mandolin', 'Mandolin, piezo', 'instrument', 'instrument banjo ukulele', 'board', { volume: true }),
  entry('percussion', 'Percussion pick-up', 'instrument', 'instrument contact stomp', 'board', { volume: false }),
  entry('microphone', 'Microphone', 'instrument', 'vocal mic voice instrument', 'board', { volume: false }),
  entry('playback', 'Playback computer', 'instrument', 'tracks laptop sampler line', 'board', { volume: true }),
];
