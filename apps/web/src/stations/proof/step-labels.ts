import {
  assertNever,
  controlLabel,
  deviceName,
  lossWords,
  type Played,
  type Sequence,
  type SequenceStep,
  type Show,
  slotLabel,
  valueLabel,
  type Wiring,
} from '@yunta/core';

export interface StepLabel {
  readonly title: string;
  readonly note: string;
}

/** What happens at a step, as a player says it. */
export function wordsOf(show: Show, wiring: Wiring, step: SequenceStep | { readonly kind: 'power-up' }): StepLabel {
  const { rig } = show;
  const nameOf = (device: string) => deviceName(wiring, device);
  const several = wiring.devices.filter((wired) => wired.anatomy.controller).length > 1;
  switch (step.kind) {
    case 'power-up':
      return { title: 'power up', note: 'all as it comes up' };
    case 'press': {
      const slot = rig.slots[step.slot];
      const lost = step.lost ? `, lost: ${lossWords(wiring, step.lost)}` : '';
      return {
        title: `${slotLabel(slot)}${several ? ` ${nameOf(slot.controller)}` : ''}`,
        note:
          (slot.sound ? (rig.sounds[slot.sound]?.name ?? '') : 'no sound') +
          (step.never ? ', never settles' : '') +
          lost,
      };
    }
    case 'bank':
      return { title: step.by === 1 ? 'bank up' : 'bank down', note: nameOf(step.controller) };
    case 'hold':
      return { title: 'hold', note: momentaryWords(wiring, step) };
    case 'release':
      return { title: 'release', note: momentaryWords(wiring, step) };
    case 'foot':
      return {
        title: step.stray ? 'accidental press' : 'foot',
        note: `${nameOf(step.device)}: ${wiring.device.get(step.device)?.anatomy.switches.find((footSwitch) => footSwitch.id === step.switch)?.label ?? step.switch}`,
      };
    case 'cue':
      return { title: 'cue', note: `${controlLabel(wiring, step.control)} to ${step.value}` };
    case 'outside':
      return {
        title: 'program change',
        note: `${programWords(wiring, step.device, step.program)}, channel ${step.channel}, into ${nameOf(step.device)}`,
      };
    case 'restart':
      return { title: 'restart', note: nameOf(step.device) };
    default:
      return assertNever(step, 'step');
  }
}

function momentaryWords(
  wiring: Wiring,
  { controller, momentary }: { readonly controller: string; readonly momentary: string },
): string {
  const wired = wiring.device.get(controller);
  return `${wired?.device.name ?? controller}: ${wired?.anatomy.controller?.momentaries.find((item) => item.id === momentary)?.label ?? momentary}`;
}

/** A program as it is sent, and as the device's panel counts it where that is otherwise. */
function programWords(wiring: Wiring, device: string, program: number): string {
  const firstPresetNumber = wiring.device.get(device)?.device.firstPresetNumber ?? 0;
  return firstPresetNumber === 0 ? String(program) : `${program} (panel ${program + firstPresetNumber})`;
}

/** What power-up must bring for a sequence to go as told, the slots that fire by themselves, and what is lost in it. */
export const powerUpWords = (wiring: Wiring, { needs, lostAtPowerUp }: Sequence): readonly string[] => [
  ...needs.map(
    ({ device, part, value }) =>
      `${controlLabel(wiring, `${device}/${part}`)} ${valueLabel(wiring, `${device}/${part}`, Number.isNaN(Number(value)) ? value : Number(value))}`,
  ),
  ...wiring.devices.flatMap(({ device: { powerUpSlot } }) =>
    powerUpSlot === undefined ? [] : [`fires ${slotLabel(wiring.rig.slots[powerUpSlot])}`],
  ),
  ...(lostAtPowerUp ? [`lost: ${lossWords(wiring, lostAtPowerUp)}`] : []),
];

/**
 * What is wrong at the end of a played sequence: the first two wants that came up otherwise, else what is heard
 * instead.
 */
export function endWords(
  wiring: Wiring,
  { wants, silent, heard }: Pick<Played, 'wants' | 'silent' | 'heard'>,
): readonly string[] {
  const wrong = wants.filter((want) => !want.right);
  if (wrong.length > 0)
    return wrong
      .slice(0, 2)
      .map(
        ({ ref, cameUp, wanted }) =>
          `${controlLabel(wiring, ref)} ${valueLabel(wiring, ref, cameUp)}, wanted ${valueLabel(wiring, ref, wanted)}`,
      );
  if (silent) return ['nothing is heard'];
  return heard === 'wrong' ? ['each right alone, not what is wanted together'] : [];
}
