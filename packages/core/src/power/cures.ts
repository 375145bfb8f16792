import { assertNever } from '../units/problem.ts';
import { compileSupply, type SupplyLoad, type SupplyProblem } from '../supply/problem.ts';
import { fewestUnpowered } from '../supply/solve.ts';

/** What could be had or left out, so that more loads have power. */
export type PowerCure =
  | { readonly kind: 'leave'; readonly load: string }
  | { readonly kind: 'lead'; readonly lead: 'reversing' | 'adapter' }
  | { readonly kind: 'chain'; readonly plugs: number }
  /** One isolated output more: a mains adapter, say. */
  | {
      readonly kind: 'output';
      readonly volts: number;
      readonly ma: number;
      readonly current: SupplyLoad['kind'];
      readonly centre: '-' | '+';
    }
  /** A second supply like one that is there. */
  | { readonly kind: 'supply'; readonly like: string };

/** A cure that was tried, with the loads that have no power even so. */
export interface TriedCure {
  readonly cure: PowerCure;
  readonly left: number;
}

/** What outputs give, mostly. */
const usualMilliamps = [100, 250, 500, 1_000, 1_500, 2_000, 3_000];
/** Slices after which a cure is taken by the best plan met. */
const mostSlices = 40;

/** Every cure that leaves fewer loads without power than `now`, each tried by the solver; the best first. */
export function* powerCures(
  problem: SupplyProblem,
  conflict: readonly string[],
  now: number,
): Generator<null, readonly TriedCure[]> {
  const tried: TriedCure[] = [];
  for (const cure of curesFor(problem, conflict)) {
    const compiled = compileSupply(cured(problem, cure));
    if (!compiled.ok) continue;
    const left = yield* fewestUnpowered(compiled.value, mostSlices);
    if (left < now) tried.push({ cure, left });
  }
  return tried.sort((a, b) => a.left - b.left);
}

function curesFor(problem: SupplyProblem, conflict: readonly string[]): readonly PowerCure[] {
  const loads = conflict.flatMap((name) => problem.loads.find((load) => load.name === name) ?? []);
  const outputs = loads.map((load): PowerCure => ({ kind: 'output', ...outputFor(load, problem.headroom ?? 100) }));
  const supplies = [...new Set(problem.outputs.map(({ name }) => supplyOf(name)))];
  const longest = Math.min(5, Math.max(2, loads.length));
  return [
    ...distinct(outputs),
    ...supplies.map((like): PowerCure => ({ kind: 'supply', like })),
    ...(loads.some(({ centre, kind }) => kind === 'dc' && centre !== 'any')
      ? [{ kind: 'lead', lead: 'reversing' } as const]
      : []),
    { kind: 'lead', lead: 'adapter' },
    { kind: 'chain', plugs: longest },
    ...conflict.map((load): PowerCure => ({ kind: 'leave', load })),
  ];
}

const distinct = (cures: readonly PowerCure[]): readonly PowerCure[] => [
  ...new Map(cures.map((cure) => [JSON.stringify(cure), cure])).values(),
];

/** The smallest usual output that a load runs on with headroom. */
function outputFor({ volts, ma, kind, centre }: SupplyLoad, headroom: number) {
  const needed = (ma * 100) / headroom;
  return {
    volts: volts[0],
    ma: usualMilliamps.find((usual) => usual >= needed) ?? Math.ceil(needed / 500) * 500,
    current: kind,
    centre: centre === '+' ? ('+' as const) : ('-' as const),
  };
}

/** `supply/dc-1` belongs to `supply`. */
const supplyOf = (output: string): string => output.slice(0, output.indexOf('/'));

function cured(problem: SupplyProblem, cure: PowerCure): SupplyProblem {
  switch (cure.kind) {
    case 'leave':
      return withoutLoad(problem, cure.load);
    case 'lead':
      return { ...problem, leads: { ...problem.leads, [cure.lead]: problem.leads[cure.lead] + 1 } };
    case 'chain':
      return { ...problem, leads: { ...problem.leads, chains: [...problem.leads.chains, cure.plugs] } };
    case 'output':
      return {
        ...problem,
        outputs: [
          ...problem.outputs,
          {
            name: 'more/output',
            choices: [{ volts: cure.volts, ma: cure.ma }],
            kind: cure.current,
            centre: cure.centre,
            plug: problem.loads[0].plug,
            rail: null,
          },
        ],
      };
    case 'supply': {
      const own = problem.outputs.filter(({ name }) => supplyOf(name) === cure.like);
      const names = new Set(own.map(({ name }) => name));
      const again = (name: string): string => `second ${name}`;
      return {
        ...problem,
        outputs: [
          ...problem.outputs,
          ...own.map((output) => ({
            ...output,
            name: again(output.name),
            rail: output.rail === null ? null : again(output.rail),
          })),
        ],
        limits: [
          ...problem.limits,
          ...problem.limits
            .filter(({ outputs }) => outputs.every((name) => names.has(name)))
            .map((limit) => ({ ...limit, outputs: limit.outputs.map(again) })),
        ],
        joins: [
          ...problem.joins,
          ...problem.joins
            .filter(({ outputs }) => outputs.every((name) => names.has(name)))
            .map(({ outputs: [a, b], how }) => ({ outputs: [again(a), again(b)] as const, how })),
        ],
      };
    }
    default:
      return assertNever(cure, 'cure');
  }
}

function withoutLoad(problem: SupplyProblem, gone: string): SupplyProblem {
  const { [gone]: _, ...pins } = problem.pins ?? {};
  return { ...problem, loads: problem.loads.filter(({ name }) => name !== gone), pins };
}
