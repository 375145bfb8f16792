import type {
  Anatomy,
  Condition,
  Control,
  ControlMessage,
  ControlValue,
  FootAction,
  FootSwitch,
  Jack,
  Section,
} from '../model/anatomy.ts';
import type { JackKind } from '../model/jack-kinds.ts';
import { domainLabel } from '../model/labels.ts';
import { jackWidth } from './edit-anatomy.ts';

/** What is inside a device, as one reads it. */

export const jackKindWords: Readonly<Record<JackKind, string>> = {
  'signal-in': 'signal in',
  'signal-out': 'signal out',
  'midi-in': 'MIDI in',
  'midi-out': 'MIDI out',
  'midi-thru': 'MIDI through',
  'midi-merge': 'MIDI out and through',
  'contact-in': 'contact in',
  'contact-out': 'contact out',
  'expression-in': 'expression in',
  'expression-out': 'expression out',
  'power-in': 'power in',
  'power-out': 'power out',
  'mains-in': 'mains in',
  'mains-out': 'mains out',
};

export const scopeWords: Readonly<Record<Control['scope'], string>> = {
  preset: 'each preset',
  slot: 'each slot',
  global: 'the device',
};

export const modeWords: Readonly<Record<ControlMessage['mode'], string>> = {
  absolute: 'its value',
  switch: '0–63 off, 64–127 on',
  toggle: 'turns it over',
  next: 'steps on',
};

/** A jack, its ring, or a point inside. */
export function pointWords({ jacks }: Anatomy, point: string): string {
  if (point.startsWith('*')) return `inside ${point.slice(1)}`;
  const [id, pole] = point.split('.');
  const label = jacks.find((jack) => jack.id === id)?.label ?? id;
  return pole === undefined || pole === 'tip' ? label : `${label} ${pole}`;
}

const controlWords = ({ controls }: Anatomy, id: string): string =>
  id === 'preset' ? 'Preset' : (controls.find((control) => control.id === id)?.label ?? id);

const valueWords = ({ controls }: Anatomy, id: string, value: ControlValue): string =>
  domainLabel(controls.find((control) => control.id === id)?.domain, value);

/** One thing that a path asks for: a control on some values, a jack with a plug or without. */
export interface ConditionPart {
  readonly of: 'control' | 'plug';
  readonly id: string;
  readonly words: string;
}

/** What a path asks for, thing by thing. */
export const conditionParts = (anatomy: Anatomy, when: Condition | undefined): readonly ConditionPart[] => [
  ...Object.entries(when?.controls ?? {}).map(([id, values]) => ({
    of: 'control' as const,
    id,
    words: `${controlWords(anatomy, id)} is ${values.map((value) => valueWords(anatomy, id, value)).join(' or ')}`,
  })),
  ...Object.entries(when?.plugs ?? {}).map(([id, plugged]) => ({
    of: 'plug' as const,
    id,
    words: `${plugged ? 'a plug' : 'nothing'} is in ${pointWords(anatomy, id)}`,
  })),
];

/** `On is off, nothing is in Return`; empty where it asks for nothing. */
export const conditionWords = (anatomy: Anatomy, when: Condition | undefined): string =>
  conditionParts(anatomy, when)
    .map(({ words }) => words)
    .join(', ');

const jackWords = (jack: Jack): string =>
  `${jack.label}: ${jackKindWords[jack.kind]}${jackWidth(jack) === 'mono' ? '' : `, ${jackWidth(jack)}`}`;

/** `Delay: Input to Output, delay, while On is on`. */
export function pathWords(anatomy: Anatomy, section: Section): string {
  const condition = conditionWords(anatomy, section.when);
  const effect = section.effect === undefined || section.effect === 'other' ? '' : section.effect.replace('-', ' ');
  return [
    `${section.label}: ${pointWords(anatomy, section.from)} to ${pointWords(anatomy, section.to)}`,
    section.active ? effect : 'wire',
    section.gainDb === undefined || section.gainDb === 0 ? '' : `${section.gainDb} dB`,
    condition === '' ? '' : `while ${condition}`,
  ]
    .filter((part) => part !== '')
    .join(', ');
}

export function domainWords(control: Control): string {
  const { domain } = control;
  switch (domain.kind) {
    case 'switch':
      return 'off, on';
    case 'choice':
      return domain.values.join(', ');
    case 'position':
      return `1 to ${domain.count}`;
    case 'range':
      return `${domain.min} to ${domain.max}`;
  }
}

const controlLine = (control: Control): string =>
  `${control.label}: ${domainWords(control)}, kept by ${scopeWords[control.scope]}`;

const messageWords = (anatomy: Anatomy, { cc, control, mode }: ControlMessage): string =>
  `CC ${cc}: ${controlWords(anatomy, control)}, ${modeWords[mode]}`;

const switchWords = (anatomy: Anatomy, { label, actions }: FootSwitch): string =>
  `${label}: ${actions
    .map((action) =>
      'flip' in action
        ? `flips ${pointWords(anatomy, action.flip)}`
        : `${pressWords(anatomy, action)}${action.armed ? ` while ${controlWords(anatomy, action.armed.control)} is ${action.armed.values.join(' or ')}` : ''}`,
    )
    .join(' and ')}`;

const pressWords = (anatomy: Anatomy, action: Exclude<FootAction, { flip: string }>): string =>
  'toggle' in action
    ? `turns over ${controlWords(anatomy, action.toggle)}`
    : 'put' in action
      ? `puts ${controlWords(anatomy, action.put)} on ${action.to}`
      : 'turn' in action
        ? `moves ${controlWords(anatomy, action.turn)}`
        : `steps ${controlWords(anatomy, action.next)}`;

/** Everything that is inside, a line a thing, list by list. */
export const anatomyLines = (anatomy: Anatomy): Readonly<Record<string, readonly string[]>> => ({
  Jacks: anatomy.jacks.map(jackWords),
  Paths: anatomy.sections.map((section) => pathWords(anatomy, section)),
  Controls: anatomy.controls.map(controlLine),
  'Foot switches': anatomy.switches.map((footSwitch) => switchWords(anatomy, footSwitch)),
  Messages: anatomy.messages.map((message) => messageWords(anatomy, message)),
  Presets: anatomy.presets ? [presetWords(anatomy.presets)] : [],
  Inserts: (anatomy.inserts ?? []).map(
    (insert) => `${pointWords(anatomy, insert.send)} and ${pointWords(anatomy, insert.return)}`,
  ),
  Ends: [
    ...(anatomy.source === undefined ? [] : [`sound is born at ${pointWords(anatomy, anatomy.source)}`]),
    ...(anatomy.destination === undefined
      ? []
      : [`sound leaves the rig at ${pointWords(anatomy, anatomy.destination)}`]),
  ],
});

const presetWords = ({ numbers, scheme, repeat }: NonNullable<Anatomy['presets']>): string =>
  `${'list' in numbers ? numbers.list.length : numbers.count} presets, bank select ${scheme === 'none' ? 'none' : scheme.toUpperCase()}, a repeated recall ${repeatWords[repeat.is]}`;

export const repeatWords = {
  reload: 'loads again',
  ignored: 'is ignored',
  alternates: 'goes back to the one before',
  flips: 'turns a control over',
} as const;
