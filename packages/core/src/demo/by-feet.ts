import {
  addDevice,
  addPart,
  addSong,
  type Command,
  playsSound,
  setConvention,
  setPart,
  setSong,
} from '../change/commands.ts';
import type { Show } from '../model/documents.ts';
import type { DeviceType } from '../model/rig.ts';
import { emptyShow } from '../starters/empty.ts';
import { RigMaker } from '../starters/show-maker.ts';

/** Rigs without a stored slot, each entered by the commands that people use. */

interface InventedSong {
  readonly name: string;
  readonly tempo: number;
  /** Name, sound and bars. */
  readonly parts: readonly (readonly [part: string, sound: string, bars: number])[];
}

/** Songs in order, each part played by a sound. */
function withSongs(maker: RigMaker, songs: readonly InventedSong[]): Show {
  for (const [i, { name, tempo, parts }] of songs.entries()) {
    const id = `song-${i + 1}`;
    maker.do(addSong(maker.show, id, name)).do(setSong(maker.show, id, 'tempo', tempo as never));
    for (const [n, [part, sound, bars]] of parts.entries()) {
      const at = `${id}-part-${n + 1}`;
      maker
        .do(addPart(maker.show, at, id, part, playsSound(maker.show.rig, sound)))
        .do(setPart(maker.show, at, 'bars', bars));
    }
  }
  return maker.show;
}

const byPedals = (maker: RigMaker): Command => setConvention(maker.show, 'foot', 'pedal by pedal');

/** Four pedals pressed one by one, a combo with a switch for its channel, an echo in its loop. */
export function cellarBarRig(): Show {
  const maker = new RigMaker(emptyShow('cellar-bar', 'Cellar bar rig'))
    .device('guitar', 'guitar', 'Guitar', {}, { volume: false, positions: [] })
    .device('tuner', 'tuner', 'Tuner', { plannedSwitches: ['switch'] })
    .device('comp', 'compressor', 'Compressor')
    .device('drive', 'drive', 'Drive')
    .device('boost', 'boost', 'Boost')
    .device('combo', 'valve-combo', 'Combo')
    .device('echo', 'delay', 'Echo')
    .device('cab', 'cabinet', 'Cabinet')
    .cable('Guitar > Tuner', 6)
    .cable('Tuner > Compressor', 0.3)
    .cable('Compressor > Drive', 0.3)
    .cable('Drive > Boost', 0.3)
    .cable('Boost > Combo Input', 6)
    .cable('Combo Send > Echo', 6)
    .cable('Echo > Combo Return', 6)
    .cable('Combo Loudspeaker > Cabinet', 1)
    .sound('rhythm', 'Rhythm', {
      role: 'clean',
      pedals: { comp: 'on', drive: 'off', boost: 'off', echo: 'off' },
      wants: { 'combo/channel': 'clean' },
    })
    .sound('crunch', 'Crunch', {
      role: 'crunch',
      pedals: { comp: 'off', drive: 'on', boost: 'off', echo: 'off' },
      wants: { 'combo/channel': 'clean' },
    })
    .sound('solo', 'Solo', {
      role: 'solo',
      pedals: { comp: 'off', drive: 'off', boost: 'on', echo: 'on' },
      wants: { 'combo/channel': 'lead' },
    });
  maker.do(byPedals(maker));
  return withSongs(maker, [
    {
      name: 'Cellar Waltz',
      tempo: 96,
      parts: [
        ['verse', 'rhythm', 16],
        ['chorus', 'crunch', 8],
        ['solo', 'solo', 16],
        ['last verse', 'rhythm', 16],
      ],
    },
    {
      name: 'Low Door',
      tempo: 132,
      parts: [
        ['riff', 'crunch', 12],
        ['break', 'rhythm', 8],
      ],
    },
  ]);
}

/** No amp: a preamp with a channel switch, an echo in its loop, a cabinet simulation to the desk; all by feet. */
export function hallwayRig(): Show {
  const maker = new RigMaker(emptyShow('hallway', 'Hallway rig, no amp'))
    .device('guitar', 'guitar', 'Guitar', {}, { positions: ['bridge', 'neck'] })
    .device('tuner', 'tuner', 'Tuner', { plannedSwitches: ['switch'] })
    .device('drive', 'drive', 'Drive')
    .device('preamp', 'preamp', 'Preamp', {}, { contactInputs: 0 })
    .device('echo', 'delay', 'Echo')
    .device('cabsim', 'cabinet-simulation', 'Cabinet simulation')
    .device('desk', 'desk', 'Desk')
    .cable('Guitar > Tuner', 6)
    .cable('Tuner > Drive', 0.3)
    .cable('Drive > Preamp Input', 0.3)
    .cable('Preamp Send > Echo', 0.3)
    .cable('Echo > Preamp Return', 0.3)
    .cable('Preamp Line out > Cabinet simulation', 0.3)
    .cable('Cabinet simulation > Desk', 10)
    .sound('bright', 'Bright', {
      role: 'clean',
      pedals: { drive: 'off', echo: 'off' },
      wants: { 'preamp/channel': 'clean', 'guitar/selector': 'bridge', 'guitar/volume': 8 },
    })
    .sound('warm', 'Warm', {
      role: 'clean',
      pedals: { drive: 'off', echo: 'on' },
      wants: { 'preamp/channel': 'clean', 'guitar/selector': 'neck', 'guitar/volume': 8 },
    })
    .sound('loud', 'Loud', {
      role: 'solo',
      pedals: { drive: 'on', echo: 'on' },
      wants: { 'preamp/channel': 'lead', 'guitar/selector': 'bridge', 'guitar/volume': 10 },
    });
  maker.do(byPedals(maker));
  return withSongs(maker, [
    {
      name: 'Stairwell',
      tempo: 88,
      parts: [
        ['intro', 'bright', 4],
        ['verse', 'warm', 16],
        ['end', 'loud', 8],
      ],
    },
  ]);
}

/** What a floor unit stores and which of its own switches do what. */
const floorUnit: DeviceType = {
  id: 'floor-multi-effect',
  revision: 1,
  name: 'Floor multi-effect',
  archetype: 'declared',
  params: {
    anatomy: {
      jacks: [
        { id: 'in', label: 'In', kind: 'signal-in' },
        { id: 'out', label: 'Out', kind: 'signal-out' },
      ],
      controls: [
        {
          id: 'drive',
          label: 'Drive',
          domain: { kind: 'switch' },
          scope: 'preset',
          powerUp: { is: 'value', value: 0 },
          owner: 'programmed',
        },
        {
          id: 'boost',
          label: 'Boost',
          domain: { kind: 'switch' },
          scope: 'global',
          powerUp: { is: 'value', value: 0 },
          owner: 'foot',
          weight: 'level',
        },
      ],
      sections: [
        {
          id: 'drive',
          label: 'Drive',
          from: 'in',
          to: '*a',
          active: true,
          effect: 'drive',
          when: { controls: { drive: [1] } },
        },
        {
          id: 'past-drive',
          label: 'Past the drive',
          from: 'in',
          to: '*a',
          active: false,
          when: { controls: { drive: [0] } },
        },
        {
          id: 'boost',
          label: 'Boost',
          from: '*a',
          to: '*b',
          active: true,
          effect: 'boost',
          when: { controls: { boost: [1] } },
        },
        {
          id: 'past-boost',
          label: 'Past the boost',
          from: '*a',
          to: '*b',
          active: false,
          when: { controls: { boost: [0] } },
        },
        {
          id: 'room',
          label: 'Room and cabinet',
          from: '*b',
          to: 'out',
          active: true,
          effect: 'cabinet-simulation',
          parameters: ['preset'],
        },
      ],
      presets: {
        numbers: { from: 0, count: 4 },
        powerUp: { is: 'value', value: 0 },
        scheme: 'none',
        bankSize: 4,
        sticky: false,
        home: [0, 0],
        repeat: { is: 'reload' },
      },
      messages: [],
      inputs: [],
      switches: [
        { id: 'down', label: 'Preset down', actions: [{ next: 'preset', by: -1, wrap: true }] },
        { id: 'up', label: 'Preset up', actions: [{ next: 'preset', by: 1, wrap: true }] },
        { id: 'boost', label: 'Boost', actions: [{ toggle: 'boost' }] },
      ],
    },
  },
};

/** A floor multi-effect that steps through its presets and boosts by switches of its own, straight to the desk. */
export function ferryRig(): Show {
  const maker = new RigMaker(emptyShow('ferry', 'Ferry rig, one unit')).device(
    'guitar',
    'guitar',
    'Guitar',
    {},
    { volume: false, positions: [] },
  );
  maker.do(
    addDevice(maker.show, 'unit', floorUnit, 'Floor unit', 'board', {
      presets: {
        '0': { name: 'Clear', values: { drive: 0 } },
        '1': { name: 'Edge', values: { drive: 1 } },
        '2': { name: 'Wide', values: { drive: 0 } },
        '3': { name: 'Wall', values: { drive: 1 } },
      },
    }),
  );
  maker
    .device('desk', 'desk', 'Desk')
    .cable('Guitar > Floor unit In', 6)
    .cable('Floor unit Out > Desk', 10)
    .sound('clear', 'Clear', { wants: { 'unit/preset': 0, 'unit/boost': 0 } })
    .sound('edge', 'Edge', { wants: { 'unit/preset': 1, 'unit/boost': 0 } })
    .sound('wall', 'Wall, boosted', { wants: { 'unit/preset': 3, 'unit/boost': 1 } });
  return withSongs(maker, [
    {
      name: 'Ferry Bell',
      tempo: 104,
      parts: [
        ['verse', 'clear', 16],
        ['chorus', 'edge', 8],
        ['end', 'wall', 8],
        ['bow', 'clear', 2],
      ],
    },
  ]);
}

/** A bass split by a Y cord onto two lines that are both always on: an amp, and a driven line to the desk. */
export function twoLineBassRig(): Show {
  const maker = new RigMaker(emptyShow('two-lines', 'Bass on two lines'))
    .device('bass', 'bass', 'Bass', {}, { volume: false })
    .device('head', 'valve-amp-1', 'Bass amp')
    .device('cab', 'cabinet', 'Cabinet')
    .device('grit', 'drive', 'Grit', {}, { hasSwitch: false })
    .device('desk', 'desk', 'Desk')
    .cable('Bass > Bass amp Input + Grit', 6)
    .cable('Bass amp Loudspeaker > Cabinet', 1)
    .cable('Grit > Desk', 10)
    .sound('both', 'Both lines', { role: 'clean' });
  return withSongs(maker, [
    {
      name: 'Keel',
      tempo: 76,
      parts: [
        ['verse', 'both', 16],
        ['chorus', 'both', 8],
      ],
    },
  ]);
}
