import type {
  Anatomy,
  Condition,
  Control,
  ControlMessage,
  ControlValue,
  Domain,
  EffectKind,
  FootAction,
  FootSwitch,
  Jack,
  PresetFacts,
  Section,
} from '../model/anatomy.ts';
import { domainValues, firstValue, movedBy } from '../model/anatomy.ts';
import type { JackKind } from '../model/jack-kinds.ts';
import { freshId } from '../model/names.ts';

/**
 * Edits of what a device is made of. Each gives a new anatomy in which nothing names what is not there; what it cannot
 * mend (a message's number that is there already means two things, say) the check of the anatomy tells.
 */

const taken = (list: readonly { readonly id: string }[]): Readonly<Record<string, true>> =>
  Object.fromEntries(list.map(({ id }) => [id, true]));

const replaced = <T extends { readonly id: string }>(
  list: readonly T[],
  id: string,
  change: NoInfer<Partial<T>>,
): readonly T[] => list.map((each) => (each.id === id ? plain({ ...each, ...change }) : each));

/** Without fields that hold nothing: a document has no such. */
const plain = <T extends object>(value: T): T =>
  Object.fromEntries(Object.entries(value).filter(([, field]) => field !== undefined)) as T;

// ---- jacks ----

/** What of a signal a jack carries. */
export const jackWidths = ['mono', 'left', 'right', 'both, on tip and ring', 'balanced', 'loudspeaker'] as const;
export type JackWidth = (typeof jackWidths)[number];

export const jackWidth = (jack: Jack): JackWidth =>
  jack.speaker
    ? 'loudspeaker'
    : jack.stereo
      ? 'both, on tip and ring'
      : jack.balanced
        ? 'balanced'
        : (jack.side ?? 'mono');

export function addJack(anatomy: Anatomy, label: string, kind: JackKind): Anatomy {
  const id = freshId(label, taken(anatomy.jacks), 'jack');
  return {
    ...anatomy,
    jacks: [...anatomy.jacks, { id, label, kind }],
    inputs: kind === 'contact-in' ? [...anatomy.inputs, { id, kind: 'edge', powerUp: 0 }] : anatomy.inputs,
  };
}

export const renameJack = (anatomy: Anatomy, id: string, label: string): Anatomy => ({
  ...anatomy,
  jacks: replaced(anatomy.jacks, id, { label }),
});

/** With two poles it may carry both sides, or one signal balanced. */
export function setJackWidth(anatomy: Anatomy, id: string, width: JackWidth): Anatomy {
  const isTwoPoles = width === 'both, on tip and ring' || width === 'balanced';
  const jacks = replaced(anatomy.jacks, id, {
    side: width === 'left' || width === 'right' ? width : undefined,
    stereo: width === 'both, on tip and ring' ? true : undefined,
    balanced: width === 'balanced' ? true : undefined,
    poles: isTwoPoles ? ['tip', 'ring'] : undefined,
    speaker: width === 'loudspeaker' ? true : undefined,
    twin: undefined,
  });
  const sections = isTwoPoles
    ? anatomy.sections
    : anatomy.sections.filter(({ from, to }) => from !== `${id}.ring` && to !== `${id}.ring`);
  return { ...anatomy, jacks, sections };
}

/** With the paths that begin or end at it, and whatever asks for its plug or its contact. */
export function removeJack(anatomy: Anatomy, id: string): Anatomy {
  const isHere = (point: string): boolean => point === id || point.startsWith(`${id}.`);
  const jacks = anatomy.jacks
    .filter((jack) => jack.id !== id)
    .map((jack) =>
      plain({
        ...jack,
        twin: jack.twin === id ? undefined : jack.twin,
        passesPowerTo: jack.passesPowerTo === id ? undefined : jack.passesPowerTo,
        shares: jack.shares === id ? undefined : jack.shares,
      }),
    );
  const sections = anatomy.sections
    .filter(({ from, to }) => !isHere(from) && !isHere(to))
    .map((section) => plain({ ...section, when: withoutPlug(section.when, id) }));
  return plain({
    ...anatomy,
    jacks,
    sections,
    inputs: anatomy.inputs.filter((input) => input.id !== id),
    inserts: anatomy.inserts?.filter((insert) => insert.send !== id && insert.return !== id),
    controls: anatomy.controls.map((control) =>
      control.contacts?.inputs.includes(id) ? plain({ ...control, contacts: undefined }) : control,
    ),
    switches: anatomy.switches.map((footSwitch) => ({
      ...footSwitch,
      actions: footSwitch.actions.filter((action) => !('flip' in action) || action.flip !== id),
    })),
    destination: anatomy.destination !== undefined && isHere(anatomy.destination) ? undefined : anatomy.destination,
    source: anatomy.source !== undefined && isHere(anatomy.source) ? undefined : anatomy.source,
  });
}

function withoutPlug(when: Condition | undefined, jack: string): Condition | undefined {
  if (when?.plugs === undefined || !Object.hasOwn(when.plugs, jack)) return when;
  const { [jack]: _gone, ...plugs } = when.plugs;
  return conditionOf({ ...when, plugs });
}

function withoutControl(when: Condition | undefined, control: string): Condition | undefined {
  if (when?.controls === undefined || !Object.hasOwn(when.controls, control)) return when;
  const { [control]: _gone, ...controls } = when.controls;
  return conditionOf({ ...when, controls });
}

/** A condition that asks for something, or none. */
function conditionOf({ controls = {}, plugs = {} }: Condition): Condition | undefined {
  const asksControls = Object.keys(controls).length > 0;
  const asksPlugs = Object.keys(plugs).length > 0;
  if (!asksControls && !asksPlugs) return undefined;
  return { ...(asksControls ? { controls } : {}), ...(asksPlugs ? { plugs } : {}) };
}

// ---- paths ----

export interface PathEnds {
  readonly from: string;
  readonly to: string;
}

/** A path that does something, or `undefined`: a plain wire. */
export function addPath(anatomy: Anatomy, label: string, { from, to }: PathEnds, effect?: EffectKind): Anatomy {
  const id = freshId(label, taken(anatomy.sections), 'path');
  const section: Section = { id, label, from, to, active: effect !== undefined, ...(effect ? { effect } : {}) };
  return { ...anatomy, sections: [...anatomy.sections, section] };
}

export const setPath = (
  anatomy: Anatomy,
  id: string,
  change: Partial<Pick<Section, 'label' | 'from' | 'to' | 'gainDb'>>,
): Anatomy => ({ ...anatomy, sections: replaced(anatomy.sections, id, change) });

export const setPathEffect = (anatomy: Anatomy, id: string, effect: EffectKind | undefined): Anatomy => ({
  ...anatomy,
  sections: replaced(anatomy.sections, id, { effect, active: effect !== undefined }),
});

/** That it carries only while a control holds one of some values; none asked for: always. */
export function setPathControl(
  anatomy: Anatomy,
  id: string,
  control: string,
  values: readonly ControlValue[] | undefined,
): Anatomy {
  const section = anatomy.sections.find((each) => each.id === id);
  const other = withoutControl(section?.when, control);
  const when = values ? conditionOf({ ...other, controls: { ...other?.controls, [control]: values } }) : other;
  return { ...anatomy, sections: replaced(anatomy.sections, id, { when }) };
}

/** That it carries only while a jack holds a plug, or holds none; undefined: either. */
export function setPathPlug(anatomy: Anatomy, id: string, jack: string, plugged: boolean | undefined): Anatomy {
  const section = anatomy.sections.find((each) => each.id === id);
  const other = withoutPlug(section?.when, jack);
  const when = plugged === undefined ? other : conditionOf({ ...other, plugs: { ...other?.plugs, [jack]: plugged } });
  return { ...anatomy, sections: replaced(anatomy.sections, id, { when }) };
}

/** Which controls are heard in it. */
export function setHeard(anatomy: Anatomy, id: string, control: string, isHeard: boolean): Anatomy {
  const before = anatomy.sections.find((section) => section.id === id)?.parameters ?? [];
  const parameters = isHeard ? [...new Set([...before, control])] : before.filter((each) => each !== control);
  return {
    ...anatomy,
    sections: replaced(anatomy.sections, id, { parameters: parameters.length > 0 ? parameters : undefined }),
  };
}

export const removePath = (anatomy: Anatomy, id: string): Anatomy => ({
  ...anatomy,
  sections: anatomy.sections.filter((section) => section.id !== id),
});

/** Points inside, in the order in which paths name them. */
export const innerPoints = ({ sections }: Anatomy): readonly string[] => [
  ...new Set(sections.flatMap(({ from, to }) => [from, to]).filter((point) => point.startsWith('*'))),
];

/** A point inside that no path names yet. */
export function freshPoint(anatomy: Anatomy): string {
  const points = new Set(innerPoints(anatomy));
  for (let n = 1; ; n += 1) if (!points.has(`*${n}`)) return `*${n}`;
}

// ---- controls ----

/** A control of which a path, or nothing, takes notice yet: after power-up as it was left, for a slot to deliver. */
export function addControl(anatomy: Anatomy, label: string, domain: Domain): Anatomy {
  const id = freshId(label, { ...taken(anatomy.controls), preset: true }, 'control');
  const control: Control = {
    id,
    label,
    domain,
    scope: 'global',
    powerUp: { is: 'last-state' },
    owner: 'programmed',
  };
  return { ...anatomy, controls: [...anatomy.controls, control] };
}

export const setControl = (
  anatomy: Anatomy,
  id: string,
  change: Partial<Pick<Control, 'label' | 'scope' | 'powerUp' | 'owner' | 'weight' | 'expression'>>,
): Anatomy => ({ ...anatomy, controls: replaced(anatomy.controls, id, change) });

/** What it may be; what asked for a value that it can no longer have goes. */
export function setDomain(anatomy: Anatomy, id: string, domain: Domain): Anatomy {
  const values = new Set(domainValues(domain));
  const control = anatomy.controls.find((each) => each.id === id);
  if (!control) return anatomy;
  const isKept = control.powerUp.is !== 'value' || values.has(control.powerUp.value);
  const sections = anatomy.sections.map((section) => {
    const asked = section.when?.controls?.[id];
    if (!asked) return section;
    const left = asked.filter((value) => values.has(value));
    const other = withoutControl(section.when, id);
    return plain({
      ...section,
      when: left.length > 0 ? conditionOf({ ...other, controls: { ...other?.controls, [id]: left } }) : other,
    });
  });
  return plain({
    ...anatomy,
    sections,
    controls: replaced(anatomy.controls, id, {
      domain,
      powerUp: isKept ? control.powerUp : { is: 'value', value: firstValue(domain) },
      contacts: undefined,
    }),
    messages: anatomy.messages.map((message) =>
      plain({
        ...message,
        ...(message.control === id ? { table: undefined } : {}),
        ...(message.armed?.control === id ? { armed: undefined } : {}),
      }),
    ),
    switches: anatomy.switches.map((footSwitch) => ({
      ...footSwitch,
      actions: footSwitch.actions
        .filter((action) => !('put' in action) || action.put !== id || values.has(action.to))
        .filter((action) => !('turn' in action) || action.turn !== id)
        .map((action) => disarmed(action, id)),
    })),
    ...(anatomy.orders ? { orders: withoutPlace(anatomy, id) } : {}),
  });
}

/** A contact that sets it: open its first value, closed its second. */
export function setContact(anatomy: Anatomy, id: string, jack: string | undefined): Anatomy {
  const control = anatomy.controls.find((each) => each.id === id);
  if (!control) return anatomy;
  const [open, closed = open] = domainValues(control.domain);
  return {
    ...anatomy,
    controls: replaced(anatomy.controls, id, {
      contacts:
        jack === undefined ? undefined : { inputs: [jack], table: { '0': open, '1': closed }, mode: 'write' as const },
    }),
  };
}

/** With whatever asks for it, moves it or is told to it. */
export function removeControl(anatomy: Anatomy, id: string): Anatomy {
  return plain({
    ...anatomy,
    controls: anatomy.controls.filter((control) => control.id !== id),
    sections: anatomy.sections.map((section) => {
      const parameters = section.parameters?.filter((parameter) => parameter !== id);
      return plain({
        ...section,
        when: withoutControl(section.when, id),
        parameters: parameters && parameters.length > 0 ? parameters : undefined,
      });
    }),
    messages: anatomy.messages
      .filter((message) => message.control !== id)
      .map((message) =>
        plain({
          ...message,
          exclusive: message.exclusive?.filter((other) => other !== id),
          armed: message.armed?.control === id ? undefined : message.armed,
        }),
      ),
    switches: anatomy.switches.map((footSwitch) => ({
      ...footSwitch,
      actions: footSwitch.actions.filter((action) => movedBy(action) !== id).map((action) => disarmed(action, id)),
    })),
    ...(anatomy.orders ? { orders: withoutPlace(anatomy, id) } : {}),
    ownSwitch: anatomy.ownSwitch === id ? undefined : anatomy.ownSwitch,
    ...(anatomy.controller
      ? { controller: { ...anatomy.controller, loops: anatomy.controller.loops.filter((loop) => loop !== id) } }
      : {}),
  });
}

/** A press that this control does not arm. */
const disarmed = (action: FootAction, control: string): FootAction =>
  'flip' in action || action.armed?.control !== control ? action : plain({ ...action, armed: undefined });

/**
 * The orders without a thing whose place goes: fewer things have fewer places, so the order goes as a whole. Where what
 * goes says how the line parts, the line parts no more.
 */
const withoutPlace = ({ orders }: Anatomy, control: string): Anatomy['orders'] => {
  const left = orders
    ?.filter(({ of }) => of.every((each) => each.control !== control))
    .map(({ branch, ...order }) =>
      branch && ![...branch.sides, branch.leaves, branch.joins].includes(control) ? { ...order, branch } : order,
    );
  return left && left.length > 0 ? left : undefined;
};

// ---- switches under the foot ----

/** A press turns a switch over, or steps to the next value; of a contact it flips the bit. */
export function addSwitch(anatomy: Anatomy, label: string, control: string): Anatomy {
  const footSwitch: FootSwitch = {
    id: freshId(label, taken(anatomy.switches), 'switch'),
    label,
    actions: [pressOf(anatomy, control)],
  };
  return { ...anatomy, switches: [...anatomy.switches, footSwitch] };
}

const pressOf = (anatomy: Anatomy, control: string): FootSwitch['actions'][number] =>
  anatomy.controls.find((each) => each.id === control)?.domain.kind === 'switch'
    ? { toggle: control }
    : { next: control, by: 1, wrap: true };

export const setSwitch = (
  anatomy: Anatomy,
  id: string,
  change: { readonly label?: string; readonly control?: string },
): Anatomy => ({
  ...anatomy,
  switches: replaced(anatomy.switches, id, {
    ...(change.label === undefined ? {} : { label: change.label }),
    ...(change.control === undefined ? {} : { actions: [pressOf(anatomy, change.control)] }),
  }),
});

export const removeSwitch = (anatomy: Anatomy, id: string): Anatomy => ({
  ...anatomy,
  switches: anatomy.switches.filter((footSwitch) => footSwitch.id !== id),
});

/** The pedal's own on and off. */
export const setOwnSwitch = (anatomy: Anatomy, control: string | undefined): Anatomy =>
  plain({ ...anatomy, ownSwitch: control });

// ---- messages ----

/** The first control change number that no message has. */
const freeNumber = ({ messages }: Anatomy): number =>
  Array.from({ length: 128 }, (_, cc) => cc).find((cc) => !messages.some((message) => message.cc === cc)) ?? 0;

/** It answers on the MIDI input, which is made where there is none. */
export function addMessage(anatomy: Anatomy, control: string, cc = freeNumber(anatomy)): Anatomy {
  const isSwitch = anatomy.controls.find((each) => each.id === control)?.domain.kind === 'switch';
  const message: ControlMessage = {
    cc,
    control,
    mode: control === 'preset' ? 'next' : isSwitch ? 'switch' : 'absolute',
    ...(control === 'preset' ? { by: 1, wrap: true } : {}),
  };
  return { ...withMidiIn(anatomy), messages: [...anatomy.messages, message] };
}

const withMidiIn = (anatomy: Anatomy): Anatomy =>
  anatomy.jacks.some((jack) => jack.kind === 'midi-in') ? anatomy : addJack(anatomy, 'MIDI in', 'midi-in');

/** By its place in the list: a message has no name. */
export const setMessage = (anatomy: Anatomy, at: number, change: Partial<ControlMessage>): Anatomy => ({
  ...anatomy,
  messages: anatomy.messages.map((message, i) => (i === at ? plain({ ...message, ...change }) : message)),
});

export const removeMessage = (anatomy: Anatomy, at: number): Anatomy => ({
  ...anatomy,
  messages: anatomy.messages.filter((_, i) => i !== at),
});

// ---- presets and inserts ----

/** 128 presets from 0, with no bank select, as a first guess. */
export const typicalPresets: PresetFacts = {
  numbers: { from: 0, count: 128 },
  powerUp: { is: 'last-state' },
  scheme: 'none',
  bankSize: 128,
  sticky: true,
  home: [0, 0],
  repeat: { is: 'reload' },
};

/** Whether presets are stored; without them what they kept is kept by the device. */
export function setPresets(anatomy: Anatomy, presets: PresetFacts | undefined): Anatomy {
  if (presets) return { ...withMidiIn(anatomy), presets };
  const without = removeControl(anatomy, 'preset');
  return plain({
    ...without,
    presets: undefined,
    controls: without.controls.map((control) =>
      control.scope === 'preset' ? { ...control, scope: 'global' as const } : control,
    ),
  });
}

/** The jack at which what a send sends comes back; undefined: none. */
export function setReturn(anatomy: Anatomy, send: string, back: string | undefined): Anatomy {
  const others = (anatomy.inserts ?? []).filter((insert) => insert.send !== send);
  const inserts = back === undefined ? others : [...others, { send, return: back }];
  return plain({ ...anatomy, inserts: inserts.length > 0 ? inserts : undefined });
}

export const returnOf = ({ inserts }: Anatomy, send: string): string | undefined =>
  inserts?.find((insert) => insert.send === send)?.return;

/** Where sound is born: an instrument, a microphone. */
export const setSource = (anatomy: Anatomy, point: string | undefined): Anatomy => plain({ ...anatomy, source: point });

/** Where sound leaves the rig: a cabinet, a line to the desk. */
export const setDestination = (anatomy: Anatomy, point: string | undefined): Anatomy =>
  plain({ ...anatomy, destination: point });
