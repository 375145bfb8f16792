// The core's speed: medians of 20 runs after warm-up, memo tables empty unless said. Run by `npm run bench`.
import { performance } from 'node:perf_hooks';
import { applySteps, check, commands, contextOf, proverOf, rules } from '../dist/index.js';
import { documentRig, kernelRig, proveCompiled, Random, retraceRig } from '../dist/testing/index.js';

const median = (list) => [...list].sort((a, b) => a - b)[Math.floor(list.length / 2)];
const copyOf = (data) => JSON.parse(JSON.stringify(data));

/** Each run gets data of its own, so that nothing remembered from the run before helps. */
function timed(runs, warmUp, prepare, act) {
  const times = [];
  for (let i = 0; i < runs + warmUp; i += 1) {
    const data = prepare();
    globalThis.gc?.();
    const start = performance.now();
    act(data);
    if (i >= warmUp) times.push(performance.now() - start);
  }
  return times;
}

const retrace = retraceRig().show;
const judged = (show, memo) => {
  const context = contextOf(show, memo);
  for (const sound of Object.values(show.rig.sounds)) context.tracer.trace(sound);
  check(context, rules);
  return context.prover.all(2);
};

function editTimes() {
  const r = new Random(7);
  let show = copyOf(retrace);
  const sounds = Object.keys(show.rig.sounds);
  const memo = contextOf(show);
  judged(show, memo);
  const edits = [
    () => commands.wantPedal(show, r.pick(sounds), `pedal-${r.below(60) + 1}`, r.pick(['on', 'off'])),
    () => commands.want(show, r.pick(sounds), `effect-${r.below(16) + 1}/preset`, r.below(12) * 20),
    () => commands.want(show, r.pick(sounds), 'combo/channel', r.pick(['clean', 'lead'])),
    () => commands.setSlotActions(show, `slot-${r.below(60) + 1}`, r.chance(0.5) ? null : [{ kind: 'loop', loop: `loop-${r.below(60) + 1}`, to: 1 }]),
    () => commands.setDevice(show, `effect-${r.below(16) + 1}`, 'countsFrom', r.pick([0, 1])),
    () => commands.setSound(show, r.pick(sounds), 'name', `Sound ${r.below(1000)}`),
    () => commands.setCable(show, `cable-${r.below(60) + 1}`, 'length', r.below(20)),
  ];
  const times = [];
  let context = memo;
  for (let i = 0; i < 220; i += 1) {
    const command = r.pick(edits)();
    const start = performance.now();
    const result = applySteps(show, command.steps);
    if (!result.ok) throw new Error(JSON.stringify(result.problems));
    context = contextOf(result.value, context);
    for (const sound of Object.values(result.value.rig.sounds)) context.tracer.trace(sound);
    check(context, rules);
    if (i >= 20) times.push(performance.now() - start);
    show = result.value;
  }
  return times;
}

/** Each figure is reported as soon as it is known. */
export function coreFigures(report) {
  report('retrace-cold-80x60', median(timed(20, 8, () => copyOf(retrace), (show) => judged(show))));
  const edits = editTimes().sort((a, b) => a - b);
  report('edit-p95-80x60', edits[Math.floor(edits.length * 0.95)]);
  const kernel = kernelRig().show;
  report('proof-kernel-1000x200', median(timed(20, 5, () => proveCompiled(proverOf(copyOf(kernel))), (prove) => prove())));
  const large = documentRig().show;
  report('proof-document-1000x200', median(timed(20, 5, () => copyOf(large), (show) => proverOf(show).all(2))));
}
