import { check, contextOf } from '../check/engine.ts';
import { rules } from '../check/rules/index.ts';
import { demoShow, flyShow } from '../demo/demo.ts';
import { inOrder, type Show } from '../model/documents.ts';
import type { Level } from '../recall/prove/verdict.ts';
import { starters } from '../starters/starters.ts';
import type { Trace } from '../trace/trace.ts';
import { seededShow } from './compare.ts';
import { stepsInShort } from './small-rig.ts';

/**
 * All that the engine says of a show, in lines that hold no name of our own code and no sentence: verdicts, lengths and
 * sequences, the passes of each sound, the findings. Before and after a change of the code that should change nothing,
 * they are the same.
 */
export function outcomesOf(show: Show): readonly string[] {
  const context = contextOf(show);
  const { prover, tracer } = context;
  const traces = inOrder(show.rig.sounds).map((sound) => `trace ${sound.id} ${traceInShort(tracer.trace(sound))}`);
  const judged = ([1, 2, 3, 4] as readonly Level[]).flatMap((level) =>
    prover.pairs().map(({ slot: of, sound: wanted }) => {
      const { slot, sound, verdict, length, sequence, gaveUp } = prover.judge(of, wanted, level);
      const steps = sequence ? stepsInShort(sequence.steps) : '-';
      const needs = sequence?.needs.map(({ device, part, value }) => `${device}.${part}=${value}`).join(',') ?? '';
      return `judged ${level} ${slot} ${sound} ${verdict} ${length ?? '-'} ${steps} [${needs}] ${gaveUp === undefined ? '' : 'gave up'}`;
    }),
  );
  const { findings, broken } = check(context, rules);
  const found = findings.map(
    ({ ruleId, messageId, severity, at, data, fix }) =>
      `found ${ruleId} ${messageId} ${severity} ${JSON.stringify(at)} ${Object.values(data)
        .filter((fact) => typeof fact === 'number')
        .join(',')} ${fix ? fix.steps.length : '-'}`,
  );
  return [...traces, ...judged, ...found, ...broken.map(({ ruleId }) => `broken ${ruleId}`)];
}

function traceInShort({ sounds, passes, jumpers, deadEnds, sums, cycles }: Trace): string {
  return JSON.stringify([
    sounds,
    passes.map(({ device, column, entries, exits, activeSections, bypassed, next }) => [
      device,
      column,
      entries,
      exits,
      activeSections.length,
      bypassed,
      next,
    ]),
    jumpers.map(({ loop, holds, pass }) => [loop, holds, pass]),
    deadEnds.map(({ device, jack }) => [device, jack]),
    sums.map(({ pass, from }) => [pass, from]),
    cycles.map(({ devices, radius, verdict }) => [devices, Number(radius.toPrecision(9)), verdict]),
  ]);
}

/** The shows whose outcomes are told, by name: demos, starters, and seeded random rigs. */
export function* outcomeShows(seeds: number, first = 1): Generator<readonly [string, Show]> {
  yield ['demo', demoShow()];
  yield ['fly', flyShow()];
  for (const starter of starters) yield [`starter ${starter.id}`, starter.make('rig', starter.name)];
  for (let seed = first; seed < first + seeds; seed += 1) yield [`seed ${seed}`, seededShow(seed)];
}
