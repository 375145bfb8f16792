import { combine } from '../change/combine.ts';
import { type Command, command, remove, set } from '../change/command.ts';
import { connect } from '../change/commands.ts';
import { sameData } from '../units/same-data.ts';
import { freshCableId } from '../model/names.ts';
import type { Show } from '../model/documents.ts';
import { type PowerLead, powerInlet, type UnitPower } from '../model/power.ts';
import type { Cable, Plug } from '../model/rig.ts';
import { needsReversing, type SupplyPlan } from '../supply/judge.ts';
import { type CompiledSupply } from '../supply/problem.ts';
import { outputName, tailOf } from './problem-of.ts';
import { suppliesOf } from './wired.ts';

/** What a plan puts on one feed, as a cable. */
interface PlannedLead {
  readonly plugs: readonly Plug[];
  readonly lead: PowerLead | undefined;
}

/**
 * The plan as the patch: one edit. A cable that comes from the same outputs is kept, with its tag and length, and its
 * other ends are moved; what no load hangs on any more is unplugged. Null where all is so already.
 */
export function givePower(show: Show, problem: CompiledSupply, plan: SupplyPlan): Command | null {
  const planned = leadsOfPlan(show, problem, plan);
  const loads = new Set(problem.loads.map(({ name }) => name));
  const feedsLoads = (cable: Cable): boolean =>
    cable.kind === 'power' && cable.plugs.some(({ device, jack }) => jack === powerInlet && loads.has(device));
  const old = Object.values(show.rig.cables).filter(feedsLoads);
  const keptBy = new Map<PlannedLead, Cable>();
  for (const one of planned) {
    const kept = old.find(
      (cable) => ![...keptBy.values()].includes(cable) && one.plugs[0] && isAt(cable, one.plugs[0]),
    );
    if (kept) keptBy.set(one, kept);
  }
  const kept = new Set(keptBy.values());
  const makes: ((now: Show) => Command | null)[] = [
    ...old
      .filter((cable) => !kept.has(cable))
      .map((cable) => () => command('disconnect', {}, [remove(['cables', cable.id], cable)])),
    // In one step for all: between two of them a jack may hold two plugs.
    () => {
      const steps = planned.flatMap((one) => {
        const cable = keptBy.get(one);
        if (!cable) return [];
        const plugs = inOldOrder(cable, one.plugs);
        const lead = withGauge(one.lead, cable.lead);
        return [
          ...(sameData(plugs, cable.plugs) ? [] : [set(['cables', cable.id, 'plugs'], plugs, cable.plugs)]),
          ...(sameData(lead, cable.lead) ? [] : [set(['cables', cable.id, 'lead'], lead, cable.lead)]),
        ];
      });
      return steps.length > 0 ? command('set-cable', {}, steps) : null;
    },
    ...planned
      .filter((one) => !keptBy.has(one))
      .map((one) => (now: Show) => {
        const id = freshCableId(now.rig);
        const made = connect(now, id, one.plugs);
        if (!one.lead) return made;
        return { ...made, steps: [...made.steps, set(['cables', id, 'lead'], one.lead, undefined)] };
      }),
    (now) => unitCommand(now, problem, plan),
  ];
  const unpowered = plan.seats.filter((seat) => seat === 'unpowered').length;
  return combine(show, { name: 'give-power', facts: { count: plan.seats.length - unpowered } }, makes);
}

const isAt = (cable: Cable, plug: Plug): boolean =>
  cable.plugs.some(({ device, jack }) => device === plug.device && jack === plug.jack);

/** The same plugs, those that were there where they were. */
function inOldOrder(cable: Cable, plugs: readonly Plug[]): readonly Plug[] {
  const same = (a: Plug) => (b: Plug) => a.device === b.device && a.jack === b.jack;
  return [
    ...cable.plugs.filter((plug) => plugs.some(same(plug))),
    ...plugs.filter((plug) => !cable.plugs.some(same(plug))),
  ];
}

const withGauge = (lead: PowerLead | undefined, was: PowerLead | undefined): PowerLead | undefined =>
  was?.gauge === undefined ? lead : { ...lead, gauge: was.gauge };

function leadsOfPlan({ rig }: Show, problem: CompiledSupply, { seats }: SupplyPlan): readonly PlannedLead[] {
  const supplies = suppliesOf(rig);
  const plugOf = (output: number): Plug => {
    const { name } = problem.source.outputs[output];
    for (const supply of supplies)
      for (const { id } of supply.type.power!.supply!.outputs)
        if (outputName(supply.id, id) === name) return tailOf(rig, supply, id);
    throw new Error(`no output ${name}`);
  };
  return problem.feeds.flatMap((feed, f) => {
    const here = problem.loads.filter((_, l) => seats[l] === f);
    if (here.length === 0) return [];
    const reverses = here.filter((load) => needsReversing(load, feed)).map(({ name }) => name);
    const adapts = here.filter(({ plug }) => plug !== feed.plug).map(({ name }) => name);
    const lead: PowerLead = {
      ...(reverses.length > 0 ? { reverses } : {}),
      ...(adapts.length > 0 ? { adapts } : {}),
      ...(feed.how === 'alone' ? {} : { join: feed.how }),
    };
    return [
      {
        plugs: [...feed.outputs.map(plugOf), ...here.map(({ name }) => ({ device: name, jack: powerInlet }) as Plug)],
        lead: Object.keys(lead).length > 0 ? lead : undefined,
      },
    ];
  });
}

/** What runs on its battery, and to which voltage outputs are set. */
function unitCommand({ rig }: Show, problem: CompiledSupply, { seats, choices }: SupplyPlan): Command | null {
  const next = new Map<string, UnitPower>();
  const of = (id: string): UnitPower => next.get(id) ?? rig.devices[id].power ?? {};
  problem.loads.forEach(({ name }, l) => {
    const { onBattery: _, ...rest } = of(name);
    next.set(name, seats[l] === 'battery' ? { ...rest, onBattery: true } : rest);
  });
  problem.feeds.forEach((feed, f) => {
    if (!seats.includes(f)) return;
    feed.outputs.forEach((output, i) => {
      const { volts } = feed.choices[choices[f]].each[i];
      for (const supply of suppliesOf(rig))
        for (const { id, choices: all } of supply.type.power!.supply!.outputs)
          if (outputName(supply.id, id) === problem.source.outputs[output].name) {
            const { volts: set = {}, ...rest } = of(supply.id);
            const { [id]: __, ...others } = set;
            const told = all[0].volts === volts ? others : { ...others, [id]: volts };
            next.set(supply.id, Object.keys(told).length > 0 ? { ...rest, volts: told } : rest);
          }
    });
  });
  const steps = [...next].flatMap(([id, power]) => {
    const old = rig.devices[id].power;
    const now = Object.keys(power).length > 0 ? power : undefined;
    return sameData(now, old) ? [] : [set(['devices', id, 'power'], now, old)];
  });
  return steps.length > 0 ? command('set-device', {}, steps) : null;
}
