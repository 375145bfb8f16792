import { type Problem, problem } from '../../units/problem.ts';
import {
  type Anatomy,
  type Control,
  type ControlMessage,
  type ControlValue,
  effectKinds,
  emptyAnatomy,
  type FootAction,
  inDomain,
  type Jack,
  movedBy,
  type Section,
} from '../anatomy.ts';
import { anatomyJackKinds } from '../jack-kinds.ts';
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
const armed = object({ control: id, values: list(controlValue, 1_000) });
const footAction = either(
  object({ toggle: id }, { armed }),
  object({ next: id }, { by: integer(-1000, 1000), wrap: yesNo, armed }),
  object({ put: id, to: controlValue }, { armed }),
  object({ turn: id, table: record(controlValue, 100) }, { armed }),
  object({ flip: id }),
);

const anatomyShape: Shape = object(
  {},
  {
    jacks: list(
      object(
        { id, label: name, kind: oneOf(...anatomyJackKinds) },
        {
          poles: list(id, 8, 1),
          speaker: yesNo,
          side: oneOf('left', 'right'),
          twin: id,
          stereo: yesNo,
          balanced: yesNo,
          passesPowerTo: id,
          shares: id,
        },
      ),
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
          pair: text(80, 1),
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
          holds: yesNo,
        },
      ),
      1_000,
    ),
    presets: object(
      {
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
      },
      { state: id },
    ),
    messages: list(
      object(
        { cc: integer(0, 127), control: id, mode: oneOf('absolute', 'switch', 'toggle', 'next') },
        {
          by: integer(-1000, 1000),
          wrap: yesNo,
          exclusive: list(id, 200),
          table: record(controlValue, 128, dataByte),
          armed,
        },
      ),
      1_000,
    ),
    inputs: list(object({ id, kind: oneOf('level', 'edge'), powerUp: oneOf(0, 1, 'last-state') }), 50),
    switches: list(object({ id, label: name, actions: list(footAction, 200) }), 100),
    settings: list(object({ label: name, value: name }), 50),
    inserts: list(object({ send: id, return: id }), 400),
    orders: list(
      object(
        { id, label: name, of: list(object({ control: id, name }), 200, 1) },
        { branch: object({ sides: list(id, 200), leaves: id, joins: id }) },
      ),
      50,
    ),
    controller: object(
      {
        banks: integer(1, 400),
        positions: integer(1, 200),
        loops: list(id, 400),
        contacts: list(
          object(
            { id, kind: oneOf('latched', 'held', 'pulsed'), policy: oneOf('every', 'belief') },
            { rests: oneOf(0, 1) },
          ),
          50,
        ),
        momentaries: list(object({ id, label: name }), 50),
        firesWhileHeld: yesNo,
        bankMove: oneOf('silent', 'fires'),
        repeatPress: oneOf('fires', 'ignored', 'alternates'),
        callRepeat: oneOf('fires', 'ignored'),
      },
      {
        floor: object({ perRow: integer(1, 20), pitchMm: integer(20, 400) }),
        nameLength: integer(1, 200),
        secondGroup: object({ position: integer(1, 200), loop: integer(1, 400) }),
      },
    ),
    busy: object({ ms: decimal(0, 60_000), policy: oneOf('drop', 'queue') }),
    emits: object({ channel: integer(1, 16) }),
    ownSwitch: id,
    source: point,
    destination: point,
  },
);

/** Checks a declared anatomy: its shape, and that what it names inside itself is there. */
export function checkAnatomy(value: Readonly<Record<string, unknown>>, at: string): readonly Problem[] {
  const problems: Problem[] = [];
  anatomyShape.check(value, at, problems);
  return problems.length > 0
    ? problems
    : new References({ ...emptyAnatomy, ...(value as Partial<Anatomy>) }, at).check();
}

/** Whether each name inside an anatomy is that of something in it, and each value one that its control can have. */
class References {
  private readonly problems: Problem[] = [];
  private readonly controls: ReadonlyMap<string, Control>;
  private readonly jacks: ReadonlyMap<string, Jack>;
  private readonly inputs: ReadonlySet<string>;

  constructor(
    private readonly anatomy: Anatomy,
    private readonly at: string,
  ) {
    this.controls = new Map(anatomy.controls.map((control) => [control.id, control]));
    this.jacks = new Map(anatomy.jacks.map((jack) => [jack.id, jack]));
    this.inputs = new Set(anatomy.inputs.map(({ id }) => id));
  }

  check(): readonly Problem[] {
    const { anatomy } = this;
    for (const list of ['jacks', 'sections', 'controls', 'inputs', 'switches'] as const) this.different(list);
    anatomy.jacks.forEach((jack, i) => {
      for (const other of [jack.twin, jack.passesPowerTo, jack.shares])
        if (other !== undefined) this.jack(other, `jacks/${i}`);
    });
    anatomy.sections.forEach((section, i) => this.section(section, `sections/${i}`));
    anatomy.controls.forEach((control, i) => this.control(control, `controls/${i}`));
    anatomy.messages.forEach((message, i) => this.message(message, `messages/${i}`));
    anatomy.inputs.forEach(({ id }, i) => {
      if (this.jacks.get(id)?.kind !== 'contact-in') this.missing(`inputs/${i}`, 'contact jack', id);
    });
    anatomy.switches.forEach(({ actions }, i) => {
      for (const [k, action] of actions.entries()) {
        const where = `switches/${i}/actions/${k}`;
        this.press(action, where);
      }
    });
    anatomy.inserts?.forEach((insert, i) => {
      this.jack(insert.send, `inserts/${i}/send`);
      this.jack(insert.return, `inserts/${i}/return`);
    });
    this.orders();
    for (const end of ['source', 'destination'] as const) if (anatomy[end] !== undefined) this.point(anatomy[end], end);
    if (anatomy.ownSwitch !== undefined) this.known(anatomy.ownSwitch, 'ownSwitch');
    const repeat = anatomy.presets?.repeat;
    if (repeat?.is === 'flips') this.known(repeat.control, 'presets/repeat/control');
    if (anatomy.presets?.state !== undefined) this.known(anatomy.presets.state, 'presets/state');
    for (const loop of anatomy.controller?.loops ?? []) this.known(loop, 'controller/loops');
    return this.problems;
  }

  private press(action: FootAction, where: string): void {
    if ('flip' in action) return this.need(this.inputs.has(action.flip), where, 'contact input', action.flip);
    if ('put' in action) {
      this.known(action.put, where);
      this.value(action.put, action.to, `${where}/to`);
    } else if ('turn' in action) {
      this.known(action.turn, where);
      for (const value of Object.values(action.table)) this.value(action.turn, value, `${where}/table`);
    } else this.settable(movedBy(action)!, where);
    if (action.armed) this.settable(action.armed.control, `${where}/armed/control`);
  }

  /** Each thing is in one order, and there are as many places as things. */
  private orders(): void {
    const placed = new Set<string>();
    this.anatomy.orders?.forEach(({ id, of, branch }, i) => {
      const where = `orders/${i}`;
      for (const control of branch ? [...branch.sides, branch.leaves, branch.joins] : [])
        this.known(control, `${where}/branch`);
      this.need(!branch || branch.sides.length === of.length, `${where}/branch`, 'side of each thing', id);
      if (this.controls.has(id)) this.problems.push(problem(`${this.at}/${where}/id`, 'duplicate', { what: 'Id', id }));
      for (const { control } of of) {
        this.known(control, `${where}/of`);
        const domain = this.controls.get(control)?.domain;
        if (domain && (domain.kind !== 'position' || domain.count !== of.length))
          this.problems.push(
            problem(`${this.at}/${where}/of`, 'out-of-domain', {
              value: control,
              expected: `a control of ${of.length} places`,
            }),
          );
        if (placed.has(control))
          this.problems.push(problem(`${this.at}/${where}/of`, 'duplicate', { what: 'Control', id: control }));
        placed.add(control);
      }
    });
  }

  private section({ from, to, when, parameters }: Section, where: string): void {
    this.point(from, `${where}/from`);
    this.point(to, `${where}/to`);
    if (from === to)
      this.problems.push(problem(`${this.at}/${where}/to`, 'out-of-domain', { value: to, expected: 'another end' }));
    for (const [control, values] of Object.entries(when?.controls ?? {})) {
      this.settable(control, `${where}/when/controls`);
      for (const value of values) this.value(control, value, `${where}/when/controls/${control}`);
    }
    for (const jack of Object.keys(when?.plugs ?? {})) this.jack(jack, `${where}/when/plugs`);
    for (const control of parameters ?? [])
      this.need(control === 'preset' || this.controls.has(control), `${where}/parameters`, 'control', control);
  }

  private control(control: Control, where: string): void {
    const { domain, powerUp, contacts } = control;
    if (domain.kind === 'range' && domain.min > domain.max)
      this.problems.push(
        problem(`${this.at}/${where}/domain`, 'out-of-domain', {
          value: domain.max,
          expected: `at least ${domain.min}`,
        }),
      );
    if (powerUp.is === 'value') this.value(control.id, powerUp.value, `${where}/powerUp`);
    for (const input of contacts?.inputs ?? [])
      this.need(this.inputs.has(input), `${where}/contacts/inputs`, 'contact input', input);
    for (const value of Object.values(contacts?.table ?? {})) this.value(control.id, value, `${where}/contacts/table`);
  }

  private message({ control, exclusive, table, armed }: ControlMessage, where: string): void {
    this.need(control === 'preset' || this.controls.has(control), `${where}/control`, 'control', control);
    for (const other of exclusive ?? []) this.known(other, `${where}/exclusive`);
    for (const value of Object.values(table ?? {})) this.value(control, value, `${where}/table`);
    if (armed) this.settable(armed.control, `${where}/armed/control`);
  }

  /** No two of a list are called the same. */
  private different(list: 'jacks' | 'sections' | 'controls' | 'inputs' | 'switches'): void {
    const seen = new Set<string>();
    this.anatomy[list].forEach(({ id }, i) => {
      if (seen.has(id)) this.problems.push(problem(`${this.at}/${list}/${i}/id`, 'duplicate', { what: 'Id', id }));
      seen.add(id);
    });
  }

  /** A jack, a pole of one (`in.ring`), or a point inside (`*mix`). */
  private point(point: string, where: string): void {
    if (point.startsWith('*')) return;
    const [id, pole] = point.split('.');
    const jack = this.jacks.get(id);
    if (!jack || (pole !== undefined && !(jack.poles ?? ['tip']).includes(pole))) this.missing(where, 'jack', point);
  }

  private jack(id: string, where: string): void {
    this.need(this.jacks.has(id), where, 'jack', id);
  }
  private known(control: string, where: string): void {
    this.need(this.controls.has(control), where, 'control', control);
  }
  /** A control, or the preset where there are some. */
  private settable(control: string, where: string): void {
    const isThere = this.controls.has(control) || (control === 'preset' && this.anatomy.presets !== undefined);
    this.need(isThere, where, 'control', control);
  }
  private value(control: string, value: ControlValue, where: string): void {
    const domain = this.controls.get(control)?.domain;
    if (domain && !inDomain(domain, value))
      this.problems.push(
        problem(`${this.at}/${where}`, 'out-of-domain', {
          value,
          expected: `a value of ${this.controls.get(control)!.label}`,
        }),
      );
  }
  private need(there: boolean, where: string, what: string, id: string): void {
    if (!there) this.missing(where, what, id);
  }
  private missing(where: string, what: string, id: string): void {
    this.problems.push(problem(`${this.at}/${where}`, 'not-found', { what, id }));
  }
}
