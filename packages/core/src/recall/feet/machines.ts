import type { SoundComparison } from '../audible/sound-comparison.ts';
import type { CompiledEvent } from '../explore/event-table.ts';
import type { VariableId } from '../state/ids.ts';
import type { StateModel } from '../state/state-model.ts';
import { type Belief, Machine } from './machine.ts';

const none = -1;

/** What of a rig can be heard, split into machines that do not move one another. */
export class Machines {
  readonly list: readonly Machine[];
  private readonly machineAt: Int32Array;
  private readonly concerned = new Map<CompiledEvent, readonly Machine[]>();

  /** `joined`: variables that are known to belong together. */
  constructor(
    readonly model: StateModel,
    heard: ReadonlySet<VariableId>,
    joined: readonly (readonly VariableId[])[],
  ) {
    const groups = new Groups(model.variables.length);
    const followed = new Set(heard);
    for (const group of joined) {
      for (const variable of group) followed.add(variable);
      groups.join(group);
    }
    const byRoot = new Map<number, VariableId[]>();
    for (const variable of [...followed].sort((a, b) => a - b)) {
      const root = groups.rootOf(variable);
      const group = byRoot.get(root);
      if (group) group.push(variable);
      else byRoot.set(root, [variable]);
    }
    this.list = [...byRoot.values()].map((variables, index) => new Machine(index, model, variables));
    this.machineAt = new Int32Array(model.variables.length).fill(none);
    for (const { index, variables } of this.list) for (const variable of variables) this.machineAt[variable] = index;
  }

  machineOf(variable: VariableId): Machine | undefined {
    const index = variable < 0 ? none : this.machineAt[variable];
    return index === none ? undefined : this.list[index];
  }

  /** The machines that an event may move. */
  movedBy(compiled: CompiledEvent): readonly Machine[] {
    let moved = this.concerned.get(compiled);
    if (!moved) {
      const met = new Set<Machine>();
      for (const variable of compiled.summary.written) {
        const machine = this.machineOf(variable);
        if (machine) met.add(machine);
      }
      this.concerned.set(compiled, (moved = [...met]));
    }
    return moved;
  }
}

/** What every machine may be: power-up, until an event moved it. */
export class Beliefs {
  private constructor(
    private readonly machines: Machines,
    private readonly moved: ReadonlyMap<number, Belief>,
  ) {}

  static atPowerUp(machines: Machines): Beliefs {
    return new Beliefs(machines, new Map());
  }

  of(machine: Machine): Belief {
    return this.moved.get(machine.index) ?? machine.initial;
  }

  with(machine: Machine, belief: Belief): Beliefs {
    return this.of(machine) === belief
      ? this
      : new Beliefs(this.machines, new Map(this.moved).set(machine.index, belief));
  }

  after(compiled: CompiledEvent): Beliefs {
    return this.machines
      .movedBy(compiled)
      .reduce<Beliefs>((here, machine) => here.with(machine, machine.after(here.of(machine), compiled)), this);
  }
}

/** Every variable that what sounds can turn on. */
export function heardVariables({ edges, presetOf }: SoundComparison): ReadonlySet<VariableId> {
  const heard = new Set<VariableId>();
  for (const { when, parameters } of edges) {
    for (const { variable } of when) if (variable >= 0) heard.add(variable);
    for (const variable of parameters) {
      heard.add(variable);
      const preset = presetOf.get(variable);
      if (preset !== undefined) heard.add(preset);
    }
  }
  return heard;
}

/** Joins numbers into groups, each known by one of its members. */
class Groups {
  private readonly parent: Int32Array;

  constructor(count: number) {
    this.parent = Int32Array.from({ length: count }, (_, i) => i);
  }

  rootOf(member: number): number {
    let root = member;
    while (this.parent[root] !== root) root = this.parent[root];
    for (let here = member; here !== root;) [here, this.parent[here]] = [this.parent[here], root];
    return root;
  }

  join(members: readonly number[]): void {
    for (const member of members) this.parent[this.rootOf(member)] = this.rootOf(members[0]);
  }
}
