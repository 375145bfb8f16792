import type { Show } from '../model/documents.ts';
import type { Action, Cable, Conventions, Device, Sound } from '../model/rig.ts';
import { clean, fourCable, lead } from './build-show.ts';

/** Rigs that the cases of rules begin with. */

export const ordinary = () => fourCable().sound('lead', lead).sound('clean', clean).laid();

export const byHand = (show: Show, slot: string, actions: readonly Action[]): Show => ({
  ...show,
  rig: { ...show.rig, slots: { ...show.rig.slots, [slot]: { ...show.rig.slots[slot], actions } } },
});

export const without = (show: Show, from: string): Show => ({
  ...show,
  rig: {
    ...show.rig,
    cables: Object.fromEntries(
      Object.entries(show.rig.cables).filter(([, cable]) => `${cable.plugs[0].device}.${cable.plugs[0].jack}` !== from),
    ),
  },
});

export const wanting = (sound: string, ref: string, value: string | number): Show => {
  const { show } = ordinary();
  const old = show.rig.sounds[sound];
  return {
    ...show,
    rig: { ...show.rig, sounds: { ...show.rig.sounds, [sound]: { ...old, wants: { ...old.wants, [ref]: value } } } },
  };
};

export const withDevice = (show: Show, id: string, facts: Partial<Device>): Show => ({
  ...show,
  rig: { ...show.rig, devices: { ...show.rig.devices, [id]: { ...show.rig.devices[id], ...facts } } },
});

export const withConvention = <K extends keyof Conventions>(show: Show, question: K, side: Conventions[K]): Show => ({
  ...show,
  rig: { ...show.rig, settings: { ...show.rig.settings, conventions: { [question]: side } } },
});

export function wantingEach(
  ref: string,
  first: string | number,
  second: string | number,
  like: Partial<Sound> = {},
): Show {
  return fourCable()
    .sound('a', { ...like, wants: { ...like.wants, [ref]: first } })
    .sound('b', { ...like, wants: { ...like.wants, [ref]: second } })
    .laid().show;
}

export function twoEffects(channel: number): Show {
  return ordinary().device('hall', 'midi-reverb', 'Hall', { channel }).cables('Delay MIDI through > Hall').show;
}

/** The ordinary rig with its loudspeaker cable as given. */
export function withSpeakerCable(change: Partial<Cable>): Show {
  const { show } = ordinary();
  return {
    ...show,
    rig: {
      ...show.rig,
      cables: Object.fromEntries(
        Object.entries(show.rig.cables).map(([id, cable]) => [
          id,
          cable.kind === 'speaker' ? { ...cable, ...change } : cable,
        ]),
      ),
    },
  };
}

export const loudspeakerIntoPedal = (): Show =>
  withSpeakerCable({
    plugs: [
      { device: 'combo', jack: 'speaker' },
      { device: 'drive', jack: 'in' },
    ],
  });
