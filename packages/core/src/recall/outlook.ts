import type { Hearing, HearingEdge, Laid } from './hearing.ts';
import { Liveness, type Ranges } from './liveness.ts';
import type { Pins } from './values.ts';

/** Values that a variable may have; null where it may have any. */
export type Range = readonly number[] | null;
export type Possible = (variable: number) => Range;

/**
 * What is already settled of a sound when only some variables are known: `wrong` whatever the others are,
 * `harmless` (what differs here cannot be heard, whatever the others are), or still `open`.
 */
export type Status = 'wrong' | 'harmless' | 'open';

/** A judgement from a few variables alone, sound whatever the rest of the rig is doing. */
export class Outlook {
  /** Ways through that are there whatever value a control has (a loop passes in or out): node pairs. */
  private readonly always: readonly (readonly [number, number])[];
  private readonly onwards: readonly (readonly number[])[];
  private readonly back: readonly (readonly number[])[];
  private readonly conditioned = new Map<number, HearingEdge[]>();
  private readonly governed = new Map<number, HearingEdge[]>();
  private readonly liveness: Liveness;
  /** Variables that open or close sections. */
  private readonly deciding: readonly number[];
  private readonly singles: (readonly number[] | undefined)[] = [];
  private readonly classes = new Map<number, Map<number, string>>();

  constructor(private readonly hearing: Hearing) {
    for (const edge of hearing.edges) {
      for (const condition of edge.when) push(this.conditioned, condition.variable, edge);
      if (!edge.active) continue;
      for (const variable of edge.governedBy) {
        push(this.governed, variable, edge);
        const preset = hearing.presetOf.get(variable);
        if (preset !== undefined) push(this.governed, preset, edge);
      }
    }
    this.always = this.waysThrough();
    const onwards: number[][] = Array.from({ length: hearing.graph.nodeCount }, () => []);
    const back: number[][] = Array.from({ length: hearing.graph.nodeCount }, () => []);
    for (const [from, to] of this.always) {
      onwards[from].push(to);
      back[to].push(from);
    }
    this.onwards = onwards;
    this.back = back;
    this.liveness = new Liveness(hearing, onwards, back);
    this.deciding = [...this.conditioned.keys()].filter((variable) => variable >= 0);
  }

  /** What each variable that opens or closes a section may be. */
  private ranges(possible: Possible): Ranges {
    const ranges = new Array<Range | undefined>(this.hearing.plant.variables.length);
    for (const variable of this.deciding) ranges[variable] = possible(variable);
    return ranges;
  }

  /** One value as a range; shared, since most ranges are one value. */
  private single(value: number): readonly number[] {
    return (this.singles[value] ??= [value]);
  }

  /** Whether sound surely reaches a destination. */
  surelySounds(possible: Possible): boolean {
    return this.liveness.surelySounds(this.ranges(possible));
  }

  /** Multi-valued variables that the sound does not name and that may cut the line. */
  silencers(laid: Pick<Laid, 'values'>, possible: Possible): readonly number[] {
    return [...this.conditioned.keys()].filter((variable) => {
      if (variable < 0 || laid.values.has(variable)) return false;
      const range = possible(variable);
      return range === null || range.length !== 1;
    }).filter((variable) => !this.passes(variable));
  }

  /** What decides, beside a variable itself, whether it is heard: switches of its device, the loop that holds it, switches in its loop. */
  relatives(variable: number): readonly number[] {
    return this.hearing.relatives(variable);
  }

  /** Of some variables, those that may be heard at all, whatever each of them is and whatever `possible` leaves open. */
  audible(laid: Laid, variables: readonly number[], possible: Possible): readonly number[] {
    const free = new Set(variables);
    const { edges } = this.liveness.may(
      this.ranges((variable) => {
        const obeyed = laid.obeyed.get(variable);
        if (obeyed !== undefined) return this.single(obeyed);
        const known = free.has(variable) ? null : possible(variable);
        const wanted = laid.values.get(variable);
        return known === null || wanted === undefined || known[0] === wanted ? known : [...known, wanted];
      }),
    );
    const isLive = (edge: HearingEdge) => edges[edge.index] === 1;
    return variables.filter((variable) => (this.conditioned.get(variable) ?? []).some(isLive) || (this.governed.get(variable) ?? []).some(isLive));
  }

  /** What tells values of a variable apart in a status: which sections each closes, and whether it is the wanted one. */
  classOf(laid: Laid, variable: number, value: number): string {
    let classes = this.classes.get(variable);
    if (!classes) this.classes.set(variable, (classes = new Map()));
    let pattern = classes.get(value);
    if (pattern === undefined) {
      const { values } = this.hearing.plant;
      const closed = (this.conditioned.get(variable) ?? []).flatMap((edge) => edge.when.filter((condition) => condition.variable === variable).map((condition) => (condition.values.includes(value) ? '1' : '0')));
      classes.set(value, (pattern = values.isSymbolic(value) ? `?${value}` : closed.join('')));
    }
    const wanted = laid.values.get(variable);
    return wanted === undefined ? pattern : `${pattern}${wanted === value ? '=' : '#'}`;
  }

  /** Judges one combination of a few variables; every other one may be anything that `possible` allows. */
  status(laid: Laid, at: ReadonlyMap<number, number>, possible: Possible, pins: Pins): Status {
    const { values } = this.hearing.plant;
    const differing = [...at].filter(([variable, value]) => !laid.obeyed.has(variable) && laid.values.has(variable) && laid.values.get(variable) !== value).map(([variable]) => variable);
    const now = this.ranges((variable) => {
      const obeyed = laid.obeyed.get(variable) ?? at.get(variable);
      return obeyed === undefined ? possible(variable) : this.single(obeyed);
    });
    const mayNow = this.liveness.may(now);
    if (!laid.sound.silence && !mayNow.sounds) return 'wrong';
    if (differing.length === 0) return 'harmless';
    if (differing.every((variable) => this.cannotBeHeard(variable, laid, at, now))) return 'harmless';
    const then = this.ranges((variable) => {
      const wanted = laid.values.get(variable);
      return wanted === undefined ? (now[variable] ?? null) : this.single(wanted);
    });
    const mayThen = this.liveness.may(then);
    const mustNow = this.liveness.mustLive(now);
    const mustThen = this.liveness.mustLive(then);
    for (const edge of this.hearing.edges) {
      if (!edge.active) continue;
      const surely = mustThen(edge.index);
      if (surely && mayNow.edges[edge.index] === 0) return 'wrong';
      const is = mustNow(edge.index);
      if (is && mayThen.edges[edge.index] === 0) return 'wrong';
      if (!surely && !is) continue;
      for (const variable of edge.governedBy) {
        const value = at.get(variable);
        if (value !== undefined && differing.includes(variable) && values.compare(value, laid.values.get(variable)!, pins) === 'different') return 'wrong';
      }
    }
    return 'open';
  }

  /** Nothing that this variable closes, opens or colours can be live, neither as it is nor as wanted. */
  private cannotBeHeard(variable: number, laid: Laid, at: ReadonlyMap<number, number>, ranges: Ranges): boolean {
    const either = this.ranges((other) => {
      const known = ranges[other] ?? null;
      const wanted = laid.values.get(other);
      return laid.obeyed.has(other) || known === null || wanted === undefined || (known.length === 1 && known[0] === wanted) ? known : [...known, wanted];
    });
    const { edges } = this.liveness.may(either);
    const now = at.get(variable)!;
    const wanted = laid.values.get(variable)!;
    const { values } = this.hearing.plant;
    const symbolic = values.isSymbolic(now) || values.isSymbolic(wanted);
    const changes = (edge: HearingEdge) => symbolic || edge.when.some((condition) => condition.variable === variable && condition.values.includes(now) !== condition.values.includes(wanted));
    if ((this.conditioned.get(variable) ?? []).some((edge) => edges[edge.index] === 1 && changes(edge))) return false;
    return !(this.governed.get(variable) ?? []).some((edge) => edges[edge.index] === 1);
  }

  /** Whether every way that this variable opens and closes is one that is always there in some form. */
  private passes(variable: number): boolean {
    const pairs = new Set(this.always.map(([from, to]) => `${from}>${to}`));
    return (this.conditioned.get(variable) ?? []).filter((edge) => edge.when.length === 1).every((edge) => pairs.has(`${edge.from}>${edge.to}`) || this.insideAlways(edge));
  }

  /** A send or a return of a loop that passes either way: its ends lie between the ends of such a way. */
  private insideAlways(edge: HearingEdge): boolean {
    return this.onwards[edge.from].length > 0 || this.back[edge.to].length > 0;
  }

  /**
   * Pairs of nodes joined whatever one control is, found from the inside out: a pedal's own switch first, then the
   * loop that holds it. Only controls that stay inside their domain count.
   */
  private waysThrough(): (readonly [number, number])[] {
    const { edges, graph } = this.hearing;
    const free = edges.filter((edge) => edge.when.length === 0);
    const found: [number, number][] = [];
    const has = new Set<string>();
    const single = [...this.conditioned].map(([variable, list]) => [variable, list.filter((edge) => edge.when.length === 1)] as const).filter(([variable, list]) => variable >= 0 && list.length > 1 && this.hearing.staysInDomain(variable));
    for (let grown = true; grown; ) {
      grown = false;
      const next: number[][] = Array.from({ length: graph.nodeCount }, () => []);
      for (const edge of free) next[edge.from].push(edge.to);
      for (const [from, to] of found) next[from].push(to);
      for (const [variable, list] of single) {
        const options = this.hearing.optionsOf(variable);
        const starts = [...new Set(list.map((edge) => edge.from))];
        const ends = new Set(list.map((edge) => edge.to));
        for (const start of starts) {
          const reached = options.map((option) => reach(start, next, list.filter((edge) => edge.when[0].values.includes(option))));
          for (const end of ends) {
            const name = `${start}>${end}`;
            if (has.has(name) || start === end || !reached.every((set) => set.has(end))) continue;
            has.add(name);
            found.push([start, end]);
            next[start].push(end);
            grown = true;
          }
        }
      }
    }
    return found;
  }
}

function reach(start: number, next: readonly (readonly number[])[], closed: readonly HearingEdge[]): ReadonlySet<number> {
  const seen = new Set([start]);
  const stack = [start];
  while (stack.length > 0) {
    const node = stack.pop()!;
    const there = [...next[node], ...closed.filter((edge) => edge.from === node).map((edge) => edge.to)];
    for (const to of there)
      if (!seen.has(to)) {
        seen.add(to);
        stack.push(to);
      }
  }
  return seen;
}

function push<K, V>(map: Map<K, V[]>, key: K, value: V): void {
  const list = map.get(key);
  if (!list) map.set(key, [value]);
  else if (!list.includes(value)) list.push(value);
}
