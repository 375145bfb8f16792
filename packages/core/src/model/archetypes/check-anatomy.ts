import { type Problem, problem } from '../../units/problem.ts';
import { effectKinds } from '../anatomy.ts';
import { jackKinds } from '../jack-kinds.ts';
import {
  constant,
  controlValue,
  decimal,
  either,
  id,
  integer,
  list,
  object,
  oneOf,
  record,
  type Shape,
  tagged,
  text,
  yesNo,
} from '../shape.ts';

const name = text(120);
const point = text(80, 1);
const powerUp = tagged('is', {
  value: object({ is: constant('value'), value: controlValue }),
  'last-state': object({ is: constant('last-state') }),
  any: object({ is: constant('any') }),
});
const domain = tagged('kind', {
  switch: object({ kind: constant('switch') }),
  choice: object({ kind: constant('choice'), values: list(controlValue, 1_000, 1) }),
  position: object({ kind: constant('position'), count: integer(1, 1_000) }),
  range: object({ kind: constant('range'), min: integer(-100_000, 100_000), max: integer(-100_000, 100_000) }),
});
const bits = (key: string): boolean => /^[01]{1,8}$/.test(key);
const dataByte = (key: string): boolean => /^\d{1,3}$/.test(key) && Number(key) <= 127;
const footAction = either(
  object({ toggle: id }),
  object({ next: id }, { by: integer(-1000, 1000), wrap: yesNo }),
  object({ flip: id }),
);

const anatomyShape: Shape = object(
  {},
  {
    jacks: list(
      object({ id, label: name, kind: oneOf(...Object.keys(jackKinds)) }, { poles: list(id, 8, 1), speaker: yesNo }),
      2_000,
    ),
    sections: list(
      object(
        { id: text(80, 1), label: name, from: point, to: point, active: yesNo },
        {
          when: object({}, { controls: record(list(controlValue, 1_000), 50), plugs: record(yesNo, 50) }),
          parameters: list(id, 200),
          gainDb: decimal(-120, 120),
          effect: oneOf(...effectKinds),
        },
      ),
      4_000,
    ),
    controls: list(
      object(
        {
          id,
          label: name,
          domain,
          scope: oneOf('preset', 'slot', 'global'),
          powerUp,
          owner: oneOf('programmed', 'foot', 'hand', 'live'),
        },
        {
          contacts: object(
            {
              inputs: list(id, 8, 1),
              table: record(controlValue, 256, bits),
              mode: oneOf('write', 'hold'),
            },
            { onlyWhilePlugged: yesNo },
          ),
          weight: oneOf('channel', 'mute', 'level'),
          expression: yesNo,
        },
      ),
      1_000,
    ),
    presets: object({
      numbers: either(
        object({ from: integer(0, 2_100_000), count: integer(1, 16_384) }),
        object({ list: list(integer(0, 2_100_000), 16_384, 1) }),
      ),
      powerUp,
      scheme: oneOf('none', 'msb', 'lsb', 'both'),
      bankSize: integer(1, 128),
      sticky: yesNo,
      home: list(integer(0, 127), 2, 2),
      repeat: either(
        object({ is: oneOf('reload', 'ignored', 'alternates') }),
        object({ is: constant('flips'), control: id }),
      ),
    }),
    messages: list(
      object(
        { cc: integer(0, 127), control: id, mode: oneOf('absolute', 'switch', 'toggle', 'next') },
        {
          by: integer(-1000, 1000),
          wrap: yesNo,
          exclusive: list(id, 200),
          table: record(controlValue, 128, dataByte),
          armed: object({ control: id, values: list(controlValue, 1_000) }),
        },
      ),
      1_000,
    ),
    inputs: list(object({ id, kind: oneOf('level', 'edge'), powerUp: oneOf(0, 1, 'last-state') }), 50),
    switches: list(object({ id, label: name, actions: list(footAction, 20) }), 100),
    settings: list(object({ label: name, value: name }), 50),
    inserts: list(object({ send: id, return: id }), 400),
    controller: object(
      {
        banks: integer(1, 400),
        positions: integer(1, 200),
        loops: list(id, 400),
        contacts: list(object({ id, kind: oneOf('latched', 'held', 'pulsed'), policy: oneOf('every', 'belief') }), 50),
        momentaries: list(object({ id, label: name }), 50),
        firesWhileHeld: yesNo,
        bankMove: oneOf('silent', 'fires'),
        repeatPress: oneOf('fires', 'ignored', 'alternates'),
        callRepeat: oneOf('fires', 'ignored'),
      },
      { floor: object({ perRow: integer(1, 20), pitchMm: integer(20, 400) }) },
    ),
    busy: object({ ms: decimal(0, 60_000), policy: oneOf('drop', 'queue') }),
    emits: object({ channel: integer(1, 16) }),
    ownSwitch: id,
    source: point,
    destination: point,
  },
);

type Loose = Readonly<Record<string, readonly Readonly<Record<string, unknown>>[] | undefined>>;

/** Checks a declared anatomy: its shape, and that what it names inside itself is there. */
export function checkAnatomy(value: Readonly<Record<string, unknown>>, at: string): readonly Problem[] {
  const problems: Problem[] = [];
  anatomyShape.check(value, at, problems);
  if (problems.length > 0) return problems;
  const anatomy = value as Loose;
  const controls = new Set((anatomy.controls ?? []).map((control) => control.id as string));
  const inputs = new Set((anatomy.inputs ?? []).map((input) => input.id as string));
  const hasPresets = value.presets !== undefined;
  const isThere = (control: unknown) => controls.has(control as string) || (control === 'preset' && hasPresets);
  const need = (there: boolean, where: string, what: string, which: string) => {
    if (!there) problems.push(problem(`${at}/${where}`, 'not-found', { what, id: which }));
  };
  (anatomy.sections ?? []).forEach((section, i) => {
    const when = section.when as { controls?: object } | undefined;
    for (const control of Object.keys(when?.controls ?? {}))
      need(isThere(control), `sections/${i}/when/controls`, 'control', control);
    for (const control of (section.parameters as string[] | undefined) ?? [])
      need(control === 'preset' || controls.has(control), `sections/${i}/parameters`, 'control', control);
  });
  (anatomy.messages ?? []).forEach((message, i) => {
    need(
      message.control === 'preset' || controls.has(message.control as string),
      `messages/${i}/control`,
      'control',
      String(message.control),
    );
    for (const other of (message.exclusive as string[] | undefined) ?? [])
      need(controls.has(other), `messages/${i}/exclusive`, 'control', other);
    const armed = message.armed as { control: string } | undefined;
    if (armed) need(isThere(armed.control), `messages/${i}/armed/control`, 'control', armed.control);
  });
  (anatomy.switches ?? []).forEach((footSwitch, i) => {
    for (const [k, action] of (footSwitch.actions as Record<string, string>[]).entries()) {
      const where = `switches/${i}/actions/${k}`;
      if ('flip' in action) need(inputs.has(action.flip), where, 'contact input', action.flip);
      else need(isThere(action.toggle ?? action.next), where, 'control', action.toggle ?? action.next);
    }
  });
  const { ownSwitch, presets } = value as {
    readonly ownSwitch?: string;
    readonly presets?: { readonly repeat: { readonly control?: string } };
  };
  if (ownSwitch !== undefined) need(controls.has(ownSwitch), 'ownSwitch', 'control', ownSwitch);
  const flips = presets?.repeat.control;
  if (flips !== undefined) need(controls.has(flips), 'presets/repeat/control', 'control', flips);
  (anatomy.controls ?? []).forEach((control, i) => {
    const contacts = control.contacts as { inputs: string[] } | undefined;
    for (const input of contacts?.inputs ?? [])
      need(inputs.has(input), `controls/${i}/contacts/inputs`, 'contact input', input);
  });
  const loops = ((value.controller as { loops?: string[] } | undefined)?.loops ?? []) as readonly string[];
  for (const loop of loops) need(controls.has(loop), 'controller/loops', 'control', loop);
  return problems;
}
