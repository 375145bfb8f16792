import type { Jack } from './anatomy.ts';
import { jackFacts } from './jack-kinds.ts';
import type { Cable, DeviceType } from './rig.ts';

/** Connectors by what people call them, and which of them go into which jack (common practice). */

const phone = '6.3 mm plug';
const phoneThree = '6.3 mm plug, three poles';
const phoneLoud = '6.3 mm plug, loudspeaker';
const xlrMale = 'XLR, male';
const xlrFemale = 'XLR, female';
const five = 'five-pin plug, male';
const mini = '3.5 mm plug, three poles';
const mainsMale = 'mains plug, male';
const barrel = 'barrel 2.1 mm';
const combined = `${xlrMale} or ${phone}`;

/** What may be on the end of a cable of a kind. */
const endNames: Readonly<Record<Cable['kind'], readonly string[]>> = {
  signal: [phone, phoneThree, xlrMale, xlrFemale, mini, 'phono plug'],
  speaker: [phoneLoud, phone, 'twist-lock plug', 'banana plugs', 'bare wire'],
  midi: [five, mini, phoneThree],
  contact: [phone, phoneThree, mini],
  expression: [phoneThree, phone, mini],
  power: [barrel, 'barrel 2.5 mm', 'mini-jack', 'battery clip', 'locking barrel'],
  mains: ['three-pin inlet, female', 'locking inlet, female', 'two-pin inlet, female', mainsMale],
};

/** What may be on the end of a cable, first what its jack takes. */
export const endChoices = (kind: Cable['kind'], takes: string): readonly string[] => [
  ...new Set([...takes.split(' or '), ...endNames[kind]]),
];

/** What a jack may be said to take. */
export const jackChoices = (jack: Jack): readonly string[] => {
  const { carries } = jackFacts(jack.kind);
  const names = carries === 'signal' ? [...endNames.signal, combined, ...endNames.speaker] : endNames[carries];
  return [...new Set(names)];
};

/** The plug that a jack takes: as it is told, else what such jacks usually take. */
export function plugFor(type: DeviceType, cable: Pick<Cable, 'kind'>, jack: Jack): string {
  const { power, body } = type;
  const told = body?.takes && Object.hasOwn(body.takes, jack.id) ? body.takes[jack.id] : undefined;
  if (told !== undefined) return told;
  const { carries, direction } = jackFacts(jack.kind);
  switch (carries) {
    case 'midi':
      return five;
    case 'contact':
    case 'expression':
      return (jack.poles?.length ?? 1) > 1 ? phoneThree : phone;
    case 'power':
      return (
        power?.supply?.outputs.find(({ id }) => id === jack.id)?.plug ??
        (direction === 'in' ? power?.needs?.plug : undefined) ??
        barrel
      );
    case 'mains':
      return direction === 'in' ? `${power?.mains?.inlet ?? 'three-pin inlet'}, female` : mainsMale;
    case 'signal':
      if (jack.speaker === true || cable.kind === 'speaker') return phoneLoud;
      if (jack.balanced === true) return direction === 'out' ? xlrFemale : xlrMale;
      return jack.stereo === true || jack.shares !== undefined ? phoneThree : phone;
  }
}

/**
 * Whether a plug goes into a jack that takes another: `poles`: it goes in, and has a pole less than the jack; `no`: it
 * does not go in.
 */
export function plugFits(takes: string, plug: string): 'yes' | 'poles' | 'no' {
  const wanted = takes.split(' or ');
  if (wanted.includes(plug)) return 'yes';
  const isPhone = (name: string): boolean => name.startsWith(phone);
  if (!isPhone(plug) || !wanted.some(isPhone)) return 'no';
  return wanted.includes(phoneThree) ? 'poles' : 'yes';
}
