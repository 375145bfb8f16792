// The core's speed: medians of 20 runs after warm-up, memo tables empty unless said. Run by `npm run bench`.
import { performance } from 'node:perf_hooks';
import {
  allocate,
  arrange,
  totalOf,
  allocateNow,
  applySteps,
  check,
  commands,
  compileProblem,
  compileSupply,
  solveSupply,
  contextOf,
  proverOf,
  rules,
} from '../dist/index.js';
import {
  diamondRig,
  documentRig,
  kernelRig,
  proveCompiled,
  Random,
  randomAllocation,
  boardArrangement,
  stageSupply,
  retraceRig,
} from '../dist/testing/index.js';

const median = (list) => [...list].sort((a, b) => a - b)[Math.floor(list.length / 2)];
const copyOf = (data) => JSON.parse(JSON.stringify(data));

/** One run on data of its own, so that nothing remembered from the run before helps. */
function timed(prepare, act) {
  const data = prepare();
  const start = performance.now();
  act(data);
  return performance.now() - start;
}

/**
 * Runs in blocks of 20 until the medians of three in a row were none 3 % better than all before: by then the engine has
 * compiled what it will. (The best single run tells that too early: on the rig of the first figure the medians of
 * twenty go 53, 26, 19, 16, 15, 18, 14, 14, 13, 13, 13.) At most 400 runs or 30 seconds.
 */
function warmUp(act) {
  const start = performance.now();
  let best = Infinity;
  for (let blocks = 0, idle = 0; idle < 3 && blocks < 20 && performance.now() - start < 30_000; blocks += 1) {
    const time = median(Array.from({ length: 20 }, act));
    idle = time < best * 0.97 ? 0 : idle + 1;
    best = Math.min(best, time);
  }
}

function medianWhenWarm(prepare, act) {
  warmUp(() => timed(prepare, act));
  return median(Array.from({ length: 20 }, () => timed(prepare, act)));
}

/**
 * Milliseconds that the engine takes here and now to read the rig's file: work of the same kind that no line of ours is
 * in. Where a neighbour on the machine takes half of a processor or of its memory, this slows as our figures do, and
 * the bare loop below does not.
 */
function parseTime() {
  const text = JSON.stringify(retrace);
  return median(
    Array.from({ length: 5 }, () => {
      const start = performance.now();
      JSON.parse(text);
      return performance.now() - start;
    }),
  );
}

/** Nanoseconds that a step of a bare loop takes here and now: other figures can be told from a slow minute by it. */
function stepTime() {
  const steps = 2_000_000;
  let x = 0;
  const start = performance.now();
  for (let i = 0; i < steps; i += 1) x = (x * 31 + i) | 0;
  const time = performance.now() - start;
  return x === 1 ? 0 : (time * 1e6) / steps;
}

const retrace = retraceRig().show;
const judged = (show, memo) => {
  const context = contextOf(show, memo);
  for (const sound of Object.values(show.rig.sounds)) context.tracer.trace(sound);
  check(context, rules);
  return context.prover.all(2);
};

const editKinds = (r) => {
  const sounds = Object.keys(retrace.rig.sounds);
  return [
    (show) => commands.wantPedal(show, r.pick(sounds), `pedal-${r.below(60) + 1}`, r.pick(['on', 'off'])),
    (show) => commands.want(show, r.pick(sounds), `effect-${r.below(16) + 1}/preset`, r.below(12) * 20),
    (show) => commands.want(show, r.pick(sounds), 'combo/channel', r.pick(['clean', 'lead'])),
    (show) =>
      commands.setSlotActions(
        show,
        `slot-${r.below(60) + 1}`,
        r.chance(0.5) ? null : [{ kind: 'set', control: `loop-${r.below(60) + 1}`, value: 1 }],
      ),
    (show) => commands.setDevice(show, `effect-${r.below(16) + 1}`, 'firstPresetNumber', r.pick([0, 1])),
    (show) => commands.setSound(show, r.pick(sounds), 'name', `Sound ${r.below(1000)}`),
    (show) => commands.setCable(show, `cable-${r.below(60) + 1}`, 'length', r.below(20)),
  ];
};

/** Times of mixed edits, one after the other on one rig, memo tables warm. */
function editTimes(seed, count) {
  const r = new Random(seed);
  const kinds = editKinds(r);
  let show = copyOf(retrace);
  let context = contextOf(show);
  judged(show, context);
  return Array.from({ length: count }, () => {
    const command = r.pick(kinds)(show);
    const start = performance.now();
    const result = applySteps(show, command.steps);
    if (!result.ok) throw new Error(JSON.stringify(result.problems));
    context = contextOf(result.value, context);
    for (const sound of Object.values(result.value.rig.sounds)) context.tracer.trace(sound);
    check(context, rules);
    const time = performance.now() - start;
    show = result.value;
    return time;
  });
}

/** Per cent between the sounds that the best plan plays and those that none can play more of, after some time. */
function gapAfter(milliseconds) {
  const problem = compileProblem(randomAllocation(new Random(1), 24, 12, 60)).value;
  const start = performance.now();
  const search = allocate(problem);
  let step = search.next();
  while (!step.done && performance.now() - start < milliseconds) step = search.next();
  const { cost, lostAtLeast } = step.value;
  const [played, atMost] = [60 - cost.soundsLost, 60 - lostAtLeast];
  return (100 * (atMost - played)) / atMost;
}

const supplies = (loads, outputs) =>
  Array.from({ length: 8 }, (_, i) => compileSupply(stageSupply(new Random(i + 1), loads, outputs)).value);
const mean = (times) => times.reduce((sum, time) => sum + time, 0) / times.length;

/** Milliseconds until so many of the numbers that a plan costs are proved. */
function timeToProof(problem, numbers) {
  const start = performance.now();
  const solving = solveSupply(problem);
  for (let step = solving.next(); step.value.proved < numbers; step = solving.next());
  return performance.now() - start;
}

/** Milliseconds until sixteen pieces stand within two per cent of the best that three long searches met. */
function arrangeTime() {
  const problem = boardArrangement(new Random(3), 16);
  const runs = [1, 2, 3].map((seed) => {
    const start = performance.now();
    const met = [];
    for (const told of arrange(problem, seed, 500))
      if (told.cost) met.push({ time: performance.now() - start, total: totalOf(told.cost) });
    return met;
  });
  const best = Math.min(...runs.flat().map(({ total }) => total));
  return median(runs.map((met) => met.find(({ total }) => total <= best * 1.02)?.time ?? met.at(-1).time));
}

/** Each figure is reported as soon as it is known. */
export function coreFigures(report) {
  const steps = [];
  const parses = [];
  const lookAround = () => {
    steps.push(stepTime());
    parses.push(parseTime());
  };
  const figure = (name, work) => {
    lookAround();
    report(name, work());
    lookAround();
  };
  for (let i = 0; i < 20; i += 1) stepTime();
  for (let i = 0; i < 20; i += 1) parseTime();
  figure('retrace-cold-80x60', () =>
    medianWhenWarm(
      () => copyOf(retrace),
      (show) => judged(show),
    ),
  );
  figure('edit-p95-80x60', () => {
    warmUp(() => median(editTimes(6, 20)));
    return editTimes(7, 200).sort((a, b) => a - b)[190];
  });
  const kernel = kernelRig().show;
  figure('proof-kernel-1000x200', () =>
    medianWhenWarm(
      () => proveCompiled(proverOf(copyOf(kernel))),
      (prove) => prove(),
    ),
  );
  const large = documentRig().show;
  figure('proof-document-1000x200', () =>
    medianWhenWarm(
      () => copyOf(large),
      (show) => proverOf(show).all(2),
    ),
  );
  const diamonds = diamondRig();
  figure('trace-30-diamonds', () =>
    medianWhenWarm(
      () => copyOf(diamonds),
      (show) => contextOf(show).tracer.trace(null),
    ),
  );
  figure('allocate-16x8', () => {
    const times = Array.from({ length: 6 }, (_, i) => {
      const problem = compileProblem(randomAllocation(new Random(i + 1), 16, 8, 24)).value;
      const start = performance.now();
      if (!allocateNow(problem).isOptimal) throw new Error('no optimum');
      return performance.now() - start;
    });
    return median(times);
  });
  // To the whole optimum; and on a large stage to the proved number of loads without power.
  figure('power-12x8', () => mean(supplies(12, 8).map((problem) => timeToProof(problem, 7))));
  figure('power-24x18', () => mean(supplies(24, 18).map((problem) => timeToProof(problem, 1))));
  figure('arrange-16', arrangeTime);
  lookAround();
  report('allocate-24x12-gap', gapAfter(10_000), '%');
  report('bare-loop-step', median(steps), 'ns');
  report('bare-parse', median(parses));
}
