import { readdirSync, readFileSync } from 'node:fs';
import { describe, expect, test } from '@jest/globals';
import { connect } from '../change/commands.ts';
import { demoShow } from '../demo/demo.ts';
import type { Show } from '../model/documents.ts';
import type { Action, CastAction, Device, Conventions, Sound } from '../model/rig.ts';
import type { Part } from '../model/songbook.ts';
import { clean, fourCable, lead, ShowBuilder } from '../testing/build-show.ts';
import { type RuleCases, ruleFaults } from '../testing/rule-tester.ts';
import { check, contextOf } from './engine.ts';
import { defineRule } from './define-rule.ts';
import { formatFinding } from './format-finding.ts';
import { rules } from './rules/index.ts';
import { rulesPage } from './rules-page.ts';

const ordinary = () => fourCable().sound('lead', lead).sound('clean', clean).laid();
const byHand = (show: Show, slot: string, actions: readonly Action[]): Show => ({
  ...show,
  rig: { ...show.rig, slots: { ...show.rig.slots, [slot]: { ...show.rig.slots[slot], actions } } },
});
const without = (show: Show, from: string): Show => ({
  ...show,
  rig: {
    ...show.rig,
    cables: Object.fromEntries(
      Object.entries(show.rig.cables).filter(([, cable]) => `${cable.plugs[0].device}.${cable.plugs[0].jack}` !== from),
    ),
  },
});
const wanting = (sound: string, ref: string, value: string | number): Show => {
  const { show } = ordinary();
  const old = show.rig.sounds[sound];
  return {
    ...show,
    rig: { ...show.rig, sounds: { ...show.rig.sounds, [sound]: { ...old, wants: { ...old.wants, [ref]: value } } } },
  };
};
const withDevice = (show: Show, id: string, facts: Partial<Device>): Show => ({
  ...show,
  rig: { ...show.rig, devices: { ...show.rig.devices, [id]: { ...show.rig.devices[id], ...facts } } },
});
const withSchool = <K extends keyof Conventions>(show: Show, question: K, side: Conventions[K]): Show => ({
  ...show,
  rig: { ...show.rig, settings: { ...show.rig.settings, conventions: { [question]: side } } },
});
const inLoopThree = ['Delay MIDI through > Hall MIDI in'];
const silent = without(ordinary().show, 'combo.speaker');

const cases: Record<string, RuleCases> = {
  'routing/no-route': {
    clean: {
      'the four-cable rig': ordinary().show,
      'a rig with no instrument yet': new ShowBuilder().device('combo', 'valve-combo', 'Combo').sound('a').show,
      'a sound that is marked as silent': {
        ...silent,
        rig: {
          ...silent.rig,
          sounds: Object.fromEntries(
            Object.entries(silent.rig.sounds).map(([id, sound]) => [id, { ...sound, silence: true }]),
          ),
        },
      },
    },
    faulty: {
      'the cabinet not plugged in': { show: silent, messages: ['silent', 'silent'] },
      'a mute wanted in a sound that is not silent': {
        show: new ShowBuilder()
          .device('guitar', 'guitar', 'Guitar')
          .device('tuner', 'tuner', 'Tuner')
          .device('desk', 'desk', 'Desk')
          .cables('Guitar > Tuner', 'Tuner > Desk')
          .sound('a', { wants: { 'tuner/mute': 1 } }).show,
        messages: ['silent'],
      },
    },
  },
  'routing/dead-end': {
    clean: {
      'the four-cable rig': ordinary().show,
      'a direct line beside the amp, not used': fourCable().device('boost', 'boost', 'Boost').sound('lead', lead).show,
    },
    faulty: {
      'a loop that is in and has no return cable': { show: without(ordinary().show, 'drive.out'), messages: ['open'] },
      'the preamp sent nowhere': { show: without(ordinary().show, 'combo.send'), messages: ['open', 'open'] },
    },
  },
  'recall/left-over': {
    clean: { 'slots generated from their sounds': ordinary().show },
    faulty: {
      'a slot by hand that forgets the channel': {
        show: byHand(ordinary().show, 'slot-lead', [
          { kind: 'set', control: 'loop-1', value: 1 },
          { kind: 'set', control: 'loop-2', value: 1 },
          { kind: 'set', control: 'loop-3', value: 1 },
          { kind: 'program', channel: 2, program: 5 },
          { kind: 'wait', ms: 30 },
          { kind: 'control', channel: 2, cc: 102, value: 127 },
        ]),
        messages: ['left'],
        fixable: true,
      },
      'a slot by hand that is called back by what it calls': {
        show: calledBack(15),
        messages: ['unquiet'],
        fixable: true,
      },
      // The player listens where the delay does: whatever recalls the wanted preset calls it too.
      'a slot that is called back however it is made': { show: calledBack(2), messages: ['unquiet'], fixable: false },
      'a slot by hand that sends nothing': {
        show: byHand(ordinary().show, 'slot-clean', []),
        messages: ['left'],
        fixable: true,
      },
    },
  },
  'recall/unquiet-slot': {
    clean: { 'a rig in which nobody calls anybody': ordinary().show },
    faulty: {
      'two controllers that call each other round, in a slot that no part uses': {
        show: circle(),
        messages: ['round', 'round'],
      },
    },
  },
  'midi/program-out-of-range': {
    clean: { 'the last preset that there is': wanting('lead', 'delay/preset', 127) },
    faulty: { 'one past it': { show: wanting('lead', 'delay/preset', 128), messages: ['missing'] } },
  },
  'midi/shared-channel': {
    clean: {
      'two devices on two channels': twoEffects(3),
      'two devices on one channel, one of them not in the chain': without(twoEffects(2), 'delay.midi-thru'),
    },
    faulty: { 'two devices on one channel': { show: twoEffects(2), messages: ['shared'], fixable: true } },
  },
  'routing/send-without-return': {
    clean: { 'the four-cable rig': ordinary().show, 'a return used as an input on purpose': declaredOneWay() },
    faulty: {
      'a send with no return': { show: without(ordinary().show, 'drive.out'), messages: ['no-return'], fixable: true },
      'a preamp into the return of an amp': { show: intoReturn(), messages: ['no-send'], fixable: true },
    },
  },
  'routing/outputs-joined': {
    clean: {
      'a cord that splits one output': joined('Switcher Send 4 > Boost + Boost 2'),
      'two guitars into one input, which drive nothing': fourCable()
        .device('bass', 'guitar', 'Bass')
        .device('spare', 'guitar', 'Spare')
        .device('boost', 'boost', 'Boost')
        .cables('Bass + Spare > Boost').show,
    },
    faulty: {
      'two pedals into one input': { show: joined('Boost + Boost 2 > Switcher Return 4'), messages: ['signal'] },
      'two amps on one cabinet': {
        show: fourCable()
          .device('amp', 'valve-combo', 'Second')
          .device('box', 'cabinet', 'Box')
          .device('amp-3', 'valve-combo', 'Third')
          .cables('Second Loudspeaker + Third Loudspeaker > Box').show,
        messages: ['speaker'],
      },
      'two MIDI outputs and nothing else': { show: bareOutputs(), messages: ['midi'] },
      'two MIDI outputs into one input': {
        show: fourCable()
          .device('app', 'foot-controller', 'Player')
          .device('app-2', 'foot-controller', 'Other')
          .device('echo', 'midi-delay', 'Echo')
          .cables('Player MIDI out + Other MIDI out > Echo').show,
        messages: ['midi'],
      },
    },
  },
  'routing/not-on-path': {
    clean: {
      'the four-cable rig': ordinary().show,
      'a pedal wanted off that nothing passes': fourCable()
        .device('boost', 'boost', 'Boost')
        .sound('lead', { ...lead, pedals: { ...lead.pedals, boost: 'off' } }).show,
    },
    faulty: {
      'a pedal wanted on that is plugged in nowhere': {
        show: fourCable()
          .device('boost', 'boost', 'Boost')
          .sound('lead', { ...lead, pedals: { ...lead.pedals, boost: 'on' } }).show,
        messages: ['unheard'],
      },
    },
  },
  'routing/shared-loop': {
    clean: {
      'one piece a loop': ordinary().show,
      'two that are wanted together': shared({ drive: 'on', boost: 'on' }),
      'one that MIDI switches': fourCable()
        .device('hall', 'midi-reverb', 'Hall', { channel: 3 })
        .cables(...inLoopThree)
        .sound('a', { pedals: { drive: 'off', delay: 'on', hall: 'off', combo: 'on' } }).show,
    },
    faulty: { 'one wanted without the other': { show: shared({ drive: 'on', boost: 'off' }), messages: ['apart'] } },
  },
  'routing/more-sounds-than-slots': {
    clean: {
      'two sounds, forty slots': ordinary().show,
      'no controller at all': new ShowBuilder().sound('a').sound('b').show,
    },
    faulty: {
      'three sounds on a controller of two slots': {
        show: new ShowBuilder()
          .device('switcher', 'switcher-4', 'Switcher', {}, { banks: 1, positions: 2 })
          .sound('a')
          .sound('b')
          .sound('c').show,
        messages: ['many'],
      },
    },
  },
  'routing/high-gain-in-loop': {
    clean: {
      'a drive in front of the amp': ordinary().show,
      'gain in the loop is this rig’s school': withSchool(driveInLoop(), 'gain', 'gain in the loop'),
    },
    faulty: { 'a drive between send and return': { show: driveInLoop(), messages: ['inside'] } },
  },
  'routing/time-before-drive': {
    clean: {
      'delay in the amp’s loop': ordinary().show,
      'a clean amp behind the delay': delayInFront('clean'),
      'in front is this rig’s school': withSchool(delayInFront('lead'), 'time', 'in front'),
    },
    faulty: { 'a delay into the lead channel': { show: delayInFront('lead'), messages: ['ahead'] } },
  },
  'routing/gate-after-tail': {
    clean: {
      'a gate in front': gated('front'),
      'last of the line is this rig’s school': withSchool(gated('end'), 'gate', 'last of the line'),
    },
    faulty: { 'a gate after the delay': { show: gated('end'), messages: ['cuts'] } },
  },
  'routing/no-mute': {
    clean: {
      'one instrument': ordinary().show,
      'two instruments and a tuner that mutes everything': withInstruments(tunerFirst()),
      'two instruments and a silent slot': withInstruments(
        fourCable().sound('lead', lead).sound('off', { silence: true }).laid().show,
      ),
    },
    faulty: {
      'two instruments and nothing that mutes': { show: withInstruments(ordinary().show), messages: ['open'] },
    },
  },
  'midi/no-path': {
    clean: {
      'the four-cable rig': ordinary().show,
      'a rig with no controller': new ShowBuilder()
        .device('delay', 'midi-delay', 'Delay')
        .sound('a', { wants: { 'delay/preset': 3 } }).show,
    },
    faulty: {
      'the MIDI cable not plugged in': { show: without(ordinary().show, 'switcher.midi-out'), messages: ['unreached'] },
      'no receive channel': { show: withDevice(ordinary().show, 'delay', { channel: null }), messages: ['deaf'] },
    },
  },
  'midi/counts-otherwise': {
    clean: {
      'the last preset that there is': wanting('lead', 'delay/preset', 127),
      'two past the last': wanting('lead', 'delay/preset', 129),
      'a slot by hand that sends what is wanted': byHand(ordinary().show, 'slot-lead', [
        { kind: 'program', channel: 2, program: 5 },
      ]),
    },
    faulty: {
      'one past the last': { show: wanting('lead', 'delay/preset', 128), messages: ['edge'], fixable: true },
      'a slot by hand, one off': {
        show: byHand(ordinary().show, 'slot-lead', [{ kind: 'program', channel: 2, program: 6 }]),
        messages: ['slot'],
        fixable: true,
      },
    },
  },
  'midi/bank-unselected': {
    clean: {
      'the first bank': banked('none', 5, null),
      'bank select by a generated slot': banked('lsb', 200, null),
      'by hand, with the bank': banked('lsb', 200, [
        { kind: 'control', channel: 3, cc: 32, value: 1 },
        { kind: 'program', channel: 3, program: 72 },
      ]),
    },
    faulty: {
      'a device that knows no bank select': { show: banked('none', 200, null), messages: ['no-scheme'] },
      'by hand, without the bank': {
        show: banked('lsb', 200, [{ kind: 'program', channel: 3, program: 72 }]),
        messages: ['not-sent'],
        fixable: true,
      },
    },
  },
  'midi/chain-circle': {
    clean: { 'a chain with an end': twoEffects(3) },
    faulty: { 'a through that comes back': { show: chainRound(), messages: ['round'] } },
  },
  'midi/overwritten-control': {
    clean: {
      'the control change after the preset': byHand(ordinary().show, 'slot-lead', [
        { kind: 'program', channel: 2, program: 5 },
        { kind: 'wait', ms: 20 },
        { kind: 'control', channel: 2, cc: 20, value: 60 },
      ]),
      'one that no preset stores': byHand(ordinary().show, 'slot-lead', [
        { kind: 'control', channel: 2, cc: 102, value: 127 },
        { kind: 'program', channel: 2, program: 5 },
      ]),
    },
    faulty: {
      'the control change first': {
        show: byHand(ordinary().show, 'slot-lead', [
          { kind: 'control', channel: 2, cc: 20, value: 60 },
          { kind: 'program', channel: 2, program: 5 },
        ]),
        messages: ['lost'],
        fixable: true,
      },
    },
  },
  'recall/hand-only': {
    clean: {
      'one position for all': knobbed(4, 4),
      'the instrument’s own selector is a cue': wantingEach('guitar/selector', 'neck', 'bridge'),
    },
    faulty: {
      'two positions of one knob': { show: knobbed(4, 7), messages: ['in-set'] },
      'two positions, nothing cast yet': {
        show: { ...knobbed(4, 7), rig: { ...knobbed(4, 7).rig, casting: {} } },
        messages: ['differs'],
      },
    },
  },
  'recall/held-by-pedal': {
    clean: {
      'stored in the preset that the sound recalls': byPedal({ '5': { values: { mix: 60 } } }, {}),
      'declared live': byPedal({}, { mix: 'live' }),
    },
    faulty: { 'neither stored nor sent': { show: byPedal({}, {}), messages: ['held'], fixable: true } },
  },
  'recall/identical-sounds': {
    clean: {
      'clean and lead': ordinary().show,
      'a difference in a preset': wantingEach('delay/preset', 3, 4, lead),
      'a difference by hand': wantingEach('guitar/selector', 'neck', 'bridge', lead),
    },
    faulty: {
      'the same sound twice': { show: fourCable().sound('a', lead).sound('b', lead).show, messages: ['same'] },
      'a difference where nothing is heard': {
        show: fourCable()
          .sound('a', clean)
          .sound('b', { ...clean, wants: { ...clean.wants, 'delay/preset': 4 } }).show,
        messages: ['same'],
      },
    },
  },
  'show/part-without-sound': {
    clean: {
      'every part cast': ordinary().show,
      'a part marked as silent': withPart(ordinary().show, { silent: true }),
      'a songbook before the first sound': withPart(fourCable().show, {}),
    },
    faulty: { 'a part that nobody cast': { show: withPart(ordinary().show, {}), messages: ['uncast'], fixable: true } },
  },
  'show/unused-sound': {
    clean: {
      'every sound cast': ordinary().show,
      'no songs yet': fourCable().sound('lead', lead).show,
      'a silent one': ordinary().sound('off', { silence: true }).show,
    },
    faulty: { 'one that no part plays': { show: ordinary().sound('spare', clean).show, messages: ['idle'] } },
  },
  'show/delay-without-tempo': {
    clean: {
      'a tempo': synced(120),
      'no synced preset': ordinary().show,
      'tapped is this rig’s school': withSchool(synced(null), 'tempo', 'tapped'),
    },
    faulty: { 'no tempo': { show: synced(null), messages: ['untimed'] } },
  },
  'show/feet-at-once': {
    clean: { 'one press a part': ordinary().show, 'a foot where the slot stays': footed(['lead', 'lead'], 1) },
    faulty: {
      'a foot and the slot': { show: footed(['lead', 'clean'], 1), messages: ['many'] },
      'pedal by pedal': {
        show: withSchool(footed(['lead', 'clean'], 1), 'foot', 'pedal by pedal'),
        messages: ['many'],
      },
    },
  },
};

function intoReturn(): Show {
  return new ShowBuilder()
    .device('guitar', 'guitar', 'Guitar')
    .device('preamp', 'preamp', 'Preamp')
    .device('combo', 'valve-combo', 'Combo')
    .device('cabinet', 'cabinet', 'Cabinet')
    .cables('Guitar > Preamp In', 'Preamp Line out > Combo Return', 'Combo Loudspeaker > Cabinet')
    .sound('a').show;
}
function declaredOneWay(): Show {
  return withDevice(intoReturn(), 'combo', { oneWay: ['return'] });
}
function shared(pedals: Sound['pedals']): Show {
  return new ShowBuilder()
    .device('guitar', 'guitar', 'Guitar')
    .device('switcher', 'switcher-4', 'Switcher')
    .device('drive', 'drive', 'Drive')
    .device('boost', 'boost', 'Boost')
    .device('desk', 'desk', 'Desk')
    .cables(
      'Guitar > Switcher In',
      'Switcher Send 1 > Drive',
      'Drive > Boost',
      'Boost > Switcher Return 1',
      'Switcher Out > Desk',
    )
    .sound('a', { pedals }).show;
}
function driveInLoop(): Show {
  return new ShowBuilder()
    .device('guitar', 'guitar', 'Guitar')
    .device('combo', 'valve-combo', 'Combo')
    .device('drive', 'drive', 'Drive')
    .device('cabinet', 'cabinet', 'Cabinet')
    .cables('Guitar > Combo Input', 'Combo Send > Drive', 'Drive > Combo Return', 'Combo Loudspeaker > Cabinet')
    .sound('a', { pedals: { drive: 'on' } }).show;
}
function delayInFront(channel: string): Show {
  return new ShowBuilder()
    .device('guitar', 'guitar', 'Guitar')
    .device('delay', 'delay', 'Delay')
    .device('combo', 'valve-combo', 'Combo')
    .device('cabinet', 'cabinet', 'Cabinet')
    .cables('Guitar > Delay', 'Delay > Combo Input', 'Combo Loudspeaker > Cabinet')
    .sound('a', { pedals: { delay: 'on' }, wants: { 'combo/channel': channel } }).show;
}
function gated(where: 'front' | 'end'): Show {
  const order =
    where === 'front'
      ? ['Guitar > Gate', 'Gate > Delay', 'Delay > Desk']
      : ['Guitar > Delay', 'Delay > Gate', 'Gate > Desk'];
  return new ShowBuilder()
    .device('guitar', 'guitar', 'Guitar')
    .device('delay', 'delay', 'Delay')
    .device('gate', 'gate', 'Gate')
    .device('desk', 'desk', 'Desk')
    .cables(...order)
    .sound('a', { pedals: { delay: 'on', gate: 'on' } }).show;
}
function withInstruments(show: Show): Show {
  return {
    ...show,
    songbook: {
      ...show.songbook,
      songs: {
        ...show.songbook.songs,
        other: { id: 'other', name: 'Other', order: 'z', tempo: null, instrument: 'Baritone' },
        first: { id: 'first', name: 'First', order: 'y', tempo: null, instrument: 'Guitar' },
      },
    },
  };
}
function tunerFirst(): Show {
  return new ShowBuilder()
    .device('guitar', 'guitar', 'Guitar')
    .device('tuner', 'tuner', 'Tuner')
    .device('desk', 'desk', 'Desk')
    .cables('Guitar > Tuner', 'Tuner > Desk')
    .sound('a').show;
}
function banked(scheme: string, preset: number, actions: readonly Action[] | null): Show {
  const show = ordinary()
    .device('multi', 'midi-multi', 'Multi', { channel: 3 }, { scheme })
    .cables('Delay MIDI through > Multi MIDI in').show;
  const wanted = {
    ...show,
    rig: {
      ...show.rig,
      sounds: {
        ...show.rig.sounds,
        lead: { ...show.rig.sounds.lead, wants: { ...show.rig.sounds.lead.wants, 'multi/preset': preset } },
      },
    },
  };
  return actions ? byHand(wanted, 'slot-lead', actions) : wanted;
}
function chainRound(): Show {
  const { show } = ordinary().device('hall', 'midi-reverb', 'Hall', { channel: 3 }).cables('Delay MIDI through > Hall');
  return {
    ...without(show, 'switcher.midi-out'),
    rig: {
      ...without(show, 'switcher.midi-out').rig,
      cables: {
        ...without(show, 'switcher.midi-out').rig.cables,
        back: {
          id: 'back',
          tag: 'M9',
          order: 'z',
          kind: 'midi',
          plugs: [
            { device: 'hall', jack: 'midi-thru' },
            { device: 'delay', jack: 'midi-in' },
          ],
          length: 1,
          loom: null,
        },
      },
    },
  };
}
function wantingEach(ref: string, first: string | number, second: string | number, like: Partial<Sound> = {}): Show {
  return fourCable()
    .sound('a', { ...like, wants: { ...like.wants, [ref]: first } })
    .sound('b', { ...like, wants: { ...like.wants, [ref]: second } })
    .laid().show;
}
function knobbed(first: number, second: number): Show {
  return fourCable()
    .device('boost', 'boost', 'Boost', {}, { knobs: ['Level'] })
    .sound('a', { wants: { 'boost/knob-1': first } })
    .sound('b', { wants: { 'boost/knob-1': second } })
    .laid().show;
}
function byPedal(presets: Device['presets'], owners: Device['owners']): Show {
  return new ShowBuilder()
    .device('delay', 'midi-delay', 'Delay', { presets, owners }, { mixCc: -1, mixByPedal: true })
    .sound('a', { wants: { 'delay/preset': 5, 'delay/mix': 60 } }).show;
}
function withPart(show: Show, facts: Partial<Part>): Show {
  return {
    ...show,
    songbook: {
      ...show.songbook,
      songs: { ...show.songbook.songs, more: { id: 'more', name: 'More', order: 'z', tempo: 100 } },
      parts: { ...show.songbook.parts, more: { id: 'more', song: 'more', name: 'all', order: 'z', ...facts } },
      setLists: { set: { id: 'set', name: 'Set', order: 'b', songs: [...Object.keys(show.songbook.songs), 'more'] } },
    },
  };
}
function synced(tempo: number | null): Show {
  const show = withDevice(ordinary().show, 'delay', { presets: { '5': { values: {}, sync: 'dotted-eighth' } } });
  return { ...show, songbook: { ...show.songbook, songs: { song: { ...show.songbook.songs.song, tempo } } } };
}
function footed(slots: readonly string[], feet: number): Show {
  const { show } = ordinary();
  const foot: CastAction = { kind: 'foot', device: 'combo', switch: 'channel' };
  const [first, second] = slots.map((slot) => `slot-${slot}`);
  return {
    ...show,
    rig: {
      ...show.rig,
      casting: {
        'part-lead': { id: 'part-lead', part: 'part-lead', slot: first, before: [], after: [], again: false },
        'part-clean': {
          id: 'part-clean',
          part: 'part-clean',
          slot: second,
          before: Array.from({ length: feet }, () => foot),
          after: [],
          again: false,
        },
      },
    },
  };
}

function twoEffects(channel: number): Show {
  return ordinary().device('hall', 'midi-reverb', 'Hall', { channel }).cables('Delay MIDI through > Hall').show;
}

function circle(): Show {
  const { show } = ordinary()
    .device('app', 'foot-controller', 'Player')
    .cables('Delay MIDI through > Player', 'Player MIDI out > Switcher');
  const call = (channel: number): Action => ({ kind: 'program', channel, program: 0 });
  const slot = { sound: null, bank: 5, position: 0 };
  return {
    ...show,
    rig: {
      ...show.rig,
      slots: {
        ...show.rig.slots,
        round: { ...slot, id: 'round', controller: 'switcher', actions: [call(15)] },
        back: { ...slot, id: 'back', controller: 'app', actions: [call(14)] },
      },
      devices: {
        ...show.rig.devices,
        switcher: { ...show.rig.devices.switcher, calls: { channel: 14, programs: { '0': 'round' } } },
        app: { ...show.rig.devices.app, calls: { channel: 15, programs: { '0': 'back' } } },
      },
    },
  } satisfies Show;
}

/** Two MIDI outputs on one cable: such a cable is not said in a line, but may come by file. */
function bareOutputs(): Show {
  const builder = fourCable().device('app', 'foot-controller', 'Player').device('app-2', 'foot-controller', 'Other');
  return builder.do(
    connect(builder.show, 'bare', [
      { device: 'app', jack: 'midi-out' },
      { device: 'app-2', jack: 'midi-out' },
    ]),
  ).show;
}

function joined(cable: string): Show {
  return fourCable().device('boost', 'boost', 'Boost').device('boost-2', 'boost', 'Boost 2').cables(cable).show;
}

/** The lead's slot calls the player on a channel with the number of its echo, and the player calls the slot back. */
function calledBack(channel: number): Show {
  const { show } = ordinary()
    .device('app', 'foot-controller', 'Player')
    .cables('Delay MIDI through > Player', 'Player MIDI out > Switcher');
  const program = Number(show.rig.sounds.lead.wants['delay/preset']);
  const { switcher, app } = show.rig.devices;
  return {
    ...show,
    rig: {
      ...show.rig,
      slots: {
        ...show.rig.slots,
        'slot-lead': { ...show.rig.slots['slot-lead'], actions: [{ kind: 'program', channel, program }] },
        back: {
          id: 'back',
          controller: 'app',
          sound: null,
          bank: 0,
          position: 0,
          actions: [{ kind: 'program', channel: 14, program: 0 }],
        },
      },
      devices: {
        ...show.rig.devices,
        switcher: { ...switcher, calls: { channel: 14, programs: { '0': 'slot-lead' } } },
        app: { ...app, calls: { channel, programs: { [String(program)]: 'back' } } },
      },
    },
  };
}

describe('rules', () => {
  test.each(Object.entries(cases))('%s fires where it must and is quiet on the ordinary rig', (id, given) => {
    const rule = rules.find((one) => one.meta.id === id)!;
    expect(ruleFaults(rule, given)).toEqual([]);
  });

  test('the list holds every rule of the folder, sorted, each under its own path, each with cases here', () => {
    const folder = new URL('./rules', import.meta.url);
    const files = readdirSync(folder, { recursive: true })
      .map(String)
      .filter((name) => name.includes('/') && name.endsWith('.ts'))
      .map((name) => name.replace(/\.ts$/, ''))
      .sort();
    expect(rules.map((rule) => rule.meta.id)).toEqual(files);
    expect(Object.keys(cases).sort()).toEqual(files);
  });

  test.each(rules.map((rule) => [rule.meta.id, rule] as const))(
    '%s says what, why, what to do and whence',
    (_, { meta }) => {
      for (const text of [meta.title, meta.why, meta.remedy, meta.source, ...Object.values(meta.messages)])
        expect(text).toMatch(/^\S.{8,}/);
      expect(meta.remedy).toMatch(/\.$/);
    },
  );

  test('the page of rules in the documentation is what the rules say (node scripts/rules-page.mjs)', () => {
    expect(readFileSync(new URL('../../../../docs/rules.md', import.meta.url), 'utf8')).toBe(rulesPage(rules));
  });

  test('a rule that throws is named and never stops the rest', () => {
    const broken = defineRule({
      meta: { ...rules[0].meta, id: 'x/broken' },
      check: () => {
        throw new Error('oh');
      },
    });
    const { findings, broken: told } = check(contextOf(wanting('lead', 'delay/preset', 128)), [broken, ...rules]);
    expect(told).toEqual([{ ruleId: 'x/broken', reason: 'oh' }]);
    expect(findings.some((finding) => finding.ruleId === 'midi/program-out-of-range')).toBe(true);
  });

  test('an unknown message, or a fact that is missing, is a bug and says so', () => {
    const [rule] = rules;
    const finding = {
      ruleId: rule.meta.id,
      messageId: Object.keys(rule.meta.messages)[0],
      severity: rule.meta.severity,
      at: {},
      data: {},
    };
    expect(() => formatFinding(finding, rules)).toThrow(/nothing for/);
    expect(() => formatFinding({ ...finding, messageId: 'nonsense' }, rules)).toThrow(/no message/);
  });

  test('a waived finding is told apart with its reason, and only where it was waived', () => {
    const show = without(ordinary().show, 'combo.send');
    const waived = {
      ...show,
      rig: {
        ...show.rig,
        waivers: {
          w: { id: 'w', rule: 'routing/dead-end', at: { sound: 'lead', device: 'combo' }, reason: 'mended on Friday' },
        },
      },
    };
    const { findings, waived: told } = check(contextOf(waived), rules);
    expect(told.map(({ finding, waiver }) => [finding.at.sound, waiver.reason])).toEqual([
      ['lead', 'mended on Friday'],
    ]);
    expect(
      findings.filter((finding) => finding.ruleId === 'routing/dead-end').map((finding) => finding.at.sound),
    ).toEqual(['clean']);
  });

  test('the demo says a handful of things and no more', () => {
    const { findings, broken } = check(contextOf(demoShow()), rules);
    expect(broken).toEqual([]);
    const count = (severity: string) => findings.filter((finding) => finding.severity === severity).length;
    expect([count('stops-the-show'), count('fix-before-load-in'), count('worth-knowing')]).toEqual([2, 5, 1]);
  });

  test('an amp channel, a mute or a level left over stops the show; the rest is to be fixed before load-in', () => {
    const { findings } = check(contextOf(demoShow()), rules);
    const left = findings.filter((finding) => finding.ruleId === 'recall/left-over');
    expect(left.map((finding) => [finding.data.what, finding.severity]).sort()).toEqual([
      ['Combo channel', 'stops-the-show'],
      ['Echo preset', 'fix-before-load-in'],
      ['Hall preset', 'fix-before-load-in'],
    ]);
  });
});
