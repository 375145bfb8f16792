import { assertNever, type Problem, problem, toldValue } from '../../units/problem.ts';
import type { Anatomy } from '../anatomy.ts';
import { text } from '../shape.ts';

export type ParamSpec =
  | {
      readonly kind: 'integer';
      readonly min: number;
      readonly max: number;
      readonly default: number;
      readonly label: string;
    }
  | { readonly kind: 'boolean'; readonly default: boolean; readonly label: string }
  | { readonly kind: 'choice'; readonly values: readonly string[]; readonly default: string; readonly label: string }
  | {
      readonly kind: 'words';
      readonly default: readonly string[];
      readonly label: string;
      readonly max: number;
      readonly mayBeEmpty?: boolean;
    }
  | { readonly kind: 'text'; readonly default: string; readonly label: string; readonly max: number }
  /** Structured data with a check of its own; not shown as a plain field. */
  | {
      readonly kind: 'data';
      readonly default: unknown;
      readonly label: string;
      readonly check: (value: unknown, at: string) => readonly Problem[];
    };

/** A kind of device: code that makes an anatomy from a few parameters. */
export interface Archetype {
  readonly id: string;
  readonly params: Readonly<Record<string, ParamSpec>>;
  /** What parameters that are right one by one say wrongly together. */
  readonly check?: (params: Params, at: string) => readonly Problem[];
  readonly expand: (params: Params) => Anatomy;
}

/** Checked parameters with defaults filled in. */
export class Params {
  constructor(
    private readonly specs: Readonly<Record<string, ParamSpec>>,
    private readonly values: Readonly<Record<string, unknown>>,
  ) {}
  private get(name: string): unknown {
    const spec = this.specs[name];
    if (!spec) throw new Error(`no parameter ${name}`);
    return this.values[name] ?? spec.default;
  }
  int = (name: string): number => this.get(name) as number;
  yes = (name: string): boolean => this.get(name) as boolean;
  word = (name: string): string => this.get(name) as string;
  words = (name: string): readonly string[] => this.get(name) as readonly string[];
  data = <T>(name: string): T => this.get(name) as T;
}

export function checkParams(archetype: Archetype, params: Readonly<Record<string, unknown>>, at: string): Problem[] {
  const problems: Problem[] = [];
  for (const [name, value] of Object.entries(params)) {
    const spec = Object.hasOwn(archetype.params, name) ? archetype.params[name] : undefined;
    const here = `${at}/${name}`;
    if (!spec) problems.push(problem(here, 'unknown-field', { field: name }));
    else problems.push(...checkParam(spec, value, here));
  }
  return problems.length > 0 || !archetype.check
    ? problems
    : [...archetype.check(new Params(archetype.params, params), at)];
}

function checkParam(spec: ParamSpec, value: unknown, at: string): readonly Problem[] {
  switch (spec.kind) {
    case 'integer':
      if (!Number.isInteger(value)) return [problem(at, 'wrong-type', { expected: 'a whole number' })];
      return (value as number) < spec.min || (value as number) > spec.max
        ? [problem(at, 'out-of-domain', { value: value as number, expected: `${spec.min} to ${spec.max}` })]
        : [];
    case 'boolean':
      return typeof value === 'boolean' ? [] : [problem(at, 'wrong-type', { expected: 'true or false' })];
    case 'choice':
      return spec.values.includes(value as string)
        ? []
        : [problem(at, 'out-of-domain', { value: toldValue(value), expected: spec.values.join(', ') })];
    case 'words':
      return Array.isArray(value) &&
        (value.length > 0 || spec.mayBeEmpty === true) &&
        value.length <= spec.max &&
        value.every((word) => typeof word === 'string' && word !== '') &&
        new Set(value).size === value.length
        ? []
        : [problem(at, 'wrong-type', { expected: `1 to ${spec.max} different words` })];
    case 'text': {
      const problems: Problem[] = [];
      text(spec.max).check(value, at, problems);
      return problems;
    }
    case 'data':
      return spec.check(value, at);
    default:
      return assertNever(spec, 'spec');
  }
}
