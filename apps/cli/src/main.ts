import { readFile } from 'node:fs/promises';
import { parseArgs } from 'node:util';
import {
  actionLabel,
  type FootPlan,
  footPlan,
  isAboutSongs,
  lossWords,
  moments,
  type Loss,
  type Trace,
  type Wiring,
  check,
  contextOf,
  describeProblem,
  formatFinding,
  importShow,
  type Level,
  moveHeadings,
  movesBetween,
  type PartPlan,
  rules,
  type Sequence,
  severityWords,
  type Show,
  type Sound,
  type Unjudged,
  unjudged,
  unjudgedWords,
  variantOf,
} from '@yunta/core';

const usage = `yunta check FILE [--variant NAME] [--json]
yunta trace FILE [--sound NAME] [--variant NAME] [--json]
yunta prove FILE [--sound NAME] [--level 1|2|3|4] [--variant NAME] [--json]
yunta moves FILE --variant NAME [--json]
yunta backup FILE [--overwrite]
yunta restore FILE

Exit 0: good. check: 1 when something stops the show. prove: 1 when a slot does not recall at the level asked
(2, from anywhere, unless said), 3 when the worst is cannot be known. 2: a bad file or call.
Parts that feet and hands bring up are judged at level 1: what is done for each is said, and kept under "byFeet".
4: nothing worse, but not all could be judged: what is missing is said, and kept under "unjudged" in the JSON.
--variant: the rig as it is then. moves: what is moved to make it so, in the order in which hands do it.
backup, restore: 1 when it could not be done, and nothing was changed.
`;

class BadCall extends Error {}

/** Runs one call and gives its exit code; everything it says goes through the given writers. */
export async function main(
  args: readonly string[],
  out: (text: string) => unknown = (text) => process.stdout.write(text),
  err: (text: string) => unknown = (text) => process.stderr.write(text),
): Promise<number> {
  try {
    const { values, positionals } = parseArgs({
      args: [...args],
      allowPositionals: true,
      options: {
        sound: { type: 'string' },
        variant: { type: 'string' },
        level: { type: 'string' },
        json: { type: 'boolean' },
        help: { type: 'boolean' },
      },
    });
    if (values.help) {
      out(usage);
      return 0;
    }
    const [command, file, ...rest] = positionals;
    if (!command || !file || rest.length > 0) throw new BadCall('say what to do, and with which file');
    const base = await read(file);
    const show = asVariant(base, values.variant);
    const sounds = chosen(show, values.sound);
    const print = (data: unknown, text: string) => out(values.json ? `${JSON.stringify(data, null, 1)}\n` : text);
    if (command === 'check') return runCheck(show, print);
    if (command === 'trace') return runTrace(show, sounds, print);
    if (command === 'prove') return runProve(show, sounds, levelOf(values.level), print);
    if (command === 'moves') {
      if (values.variant === undefined) throw new BadCall('say to which variant: --variant NAME');
      const moves = movesBetween(base, show);
      print({ moves }, moves.map(({ kind, words }) => `${moveHeadings[kind].toLowerCase()}: ${words}\n`).join(''));
      return 0;
    }
    throw new BadCall(`there is no "${command}"`);
  } catch (reason) {
    const isBadCall = reason instanceof BadCall || (reason as { code?: string }).code?.startsWith('ERR_PARSE_ARGS');
    err(
      `${isBadCall || reason instanceof Error ? (reason as Error).message : String(reason)}\n${isBadCall ? usage : ''}`,
    );
    return 2;
  }
}

async function read(file: string): Promise<Show> {
  let text: string;
  try {
    text = await readFile(file, 'utf8');
  } catch {
    throw new Error(`${file}: cannot be read`);
  }
  const result = importShow(text);
  if (!result.ok)
    throw new Error(
      result.problems.map((problem) => `${file}${problem.pointer}: ${describeProblem(problem)}`).join('\n'),
    );
  return result.value;
}

/** The rig itself, or one of its variants by name. */
function asVariant(show: Show, name: string | undefined): Show {
  if (name === undefined) return show;
  const found = Object.values(show.rig.variants ?? {}).find((variant) => variant.id === name || variant.name === name);
  if (!found) throw new BadCall(`there is no variant "${name}"`);
  return variantOf(show, found.id).show;
}

function chosen(show: Show, name: string | undefined): readonly Sound[] {
  const all = Object.values(show.rig.sounds);
  if (name === undefined) return all;
  const found = all.filter((sound) => sound.id === name || sound.name === name);
  if (found.length === 0) throw new BadCall(`there is no sound "${name}"`);
  return found;
}

function levelOf(given: string | undefined): Level {
  if (given === undefined) return 2;
  if (!['1', '2', '3', '4'].includes(given)) throw new BadCall('a level is 1, 2, 3 or 4');
  return Number(given) as Level;
}

type Print = (data: unknown, text: string) => void;

function runCheck(show: Show, print: Print): number {
  const context = contextOf(show);
  const { findings, broken } = check(context, rules);
  const missing = unjudged(show, context.wiring);
  const printed = findings.map((finding) => ({
    rule: finding.ruleId,
    severity: finding.severity,
    text: formatFinding(finding, rules),
    at: finding.at,
    data: finding.data,
    ...(finding.follows ? { follows: { rule: finding.follows.ruleId, at: finding.follows.at } } : {}),
  }));
  const causes = printed.filter((item) => item.follows === undefined);
  const after = printed.length - causes.length;
  print(
    { findings: printed, broken, unjudged: asJson(show, missing) },
    printed.length === 0
      ? missing.length === 0
        ? 'Nothing found.\n'
        : notJudged(show, missing)
      : causes.map((item) => `${severityWords[item.severity]}: ${item.text}\n`).join('') +
          (after === 0 ? '' : `${after} more have one of these causes.\n`),
  );
  if (findings.some((finding) => finding.severity === 'stops-the-show')) return 1;
  return missing.length > 0 ? 4 : 0;
}

function runTrace(show: Show, sounds: readonly Sound[], print: Print): number {
  const { tracer } = contextOf(show);
  const traces = sounds.map((sound) => ({ sound: sound.name, id: sound.id, trace: tracer.trace(sound) }));
  const nameOf = (id: string) => show.rig.devices[id].name;
  print(
    { traces: traces.map((trace) => ({ ...trace, trace: traceAsDocumented(trace.trace) })) },
    traces
      .map(
        ({ sound, trace }) =>
          `${sound}: ${trace.sounds ? `${trace.passes.length} passes` : 'silent'}${undecided(nameOf, trace)}\n  ${trace.passes.map((pass) => nameOf(pass.device) + (pass.bypassed ? ' (bypassed)' : '')).join(' > ')}\n`,
      )
      .join(''),
  );
  return 0;
}

/** Contents that decide where the line runs and that nobody entered: it is told as it runs both ways. */
const undecided = (nameOf: (id: string) => string, trace: Trace): string =>
  trace.undecided
    .map(({ device, preset, label }) => `; preset ${preset} of ${nameOf(device)} decides ${label}, and is not entered`)
    .join('');

function runProve(show: Show, sounds: readonly Sound[], level: Level, print: Print): number {
  const { prover } = contextOf(show);
  const missing = unjudged(show, prover.model.wiring).filter(
    (item) => isAsked(item, sounds) && (level === 1 || !isAboutSongs(item)),
  );
  const wanted = new Set<string>(sounds.map((sound) => sound.id));
  const judgements = prover
    .pairs()
    .filter(({ sound }) => wanted.has(sound.id))
    .map(({ slot, sound }) => ({ name: sound.name, ...prover.judge(slot, sound, level) }));
  const { wiring } = prover.model;
  const plan = footPlan(prover);
  const parts = (plan?.parts ?? []).filter(({ judgement, sound }) => judgement && sound !== null && wanted.has(sound));
  print(
    {
      level,
      judgements: judgements.map((judgement) => asDocumented(wiring, judgement)),
      unjudged: asJson(show, missing),
      ...(plan ? { byFeet: feetAsDocumented(wiring, plan, wanted) } : {}),
    },
    judgements
      .map(
        (judgement) =>
          `${judgement.verdict}${judgement.length === null ? '' : ` (${judgement.length})`}: ${judgement.name}\n`,
      )
      .join('') +
      parts.map((part) => byFeetLine(show, wiring, part, level)).join('') +
      notJudged(show, missing),
  );
  // Parts that feet and hands bring up are judged in set order alone.
  const verdicts = new Set([
    ...judgements.map((judgement) => judgement.verdict),
    ...(level === 1 ? parts.map(({ judgement }) => judgement!.verdict) : []),
  ]);
  if (verdicts.has('does-not')) return 1;
  if (verdicts.has('cannot-be-known')) return 3;
  return missing.length > 0 || verdicts.size === 0 || (level !== 1 && parts.length > 0) ? 4 : 0;
}

/** “recalls: Cellar Waltz, verse, Rhythm: before Drive, Boost; on Echo”; at the other levels only who plays it. */
function byFeetLine(
  { rig, songbook }: Show,
  wiring: Wiring,
  { part: id, sound, judgement, steps }: PartPlan,
  level: Level,
) {
  const part = songbook.parts[id];
  const name = `${songbook.songs[part.song].name}, ${part.name}, ${rig.sounds[sound!].name}`;
  if (level !== 1) return `played by feet, judged in set order (--level 1): ${name}\n`;
  const done = moments.flatMap((when) => {
    const labels = steps.flatMap((step) =>
      step.when === when && step.action ? [actionLabel(wiring, step.action)] : [],
    );
    return labels.length > 0 ? [`${when} ${labels.join(', ')}`] : [];
  });
  return `${judgement!.verdict}: ${name}: ${done.length > 0 ? done.join('; ') : 'nothing to do'}\n`;
}

/** The foot plan of some sounds; steps as stones, as everywhere in the JSON. */
function feetAsDocumented(wiring: Wiring, { parts, mistakes, resets }: FootPlan, sounds: ReadonlySet<string>): object {
  return {
    parts: parts
      .filter(({ sound, judgement }) => judgement && sound !== null && sounds.has(sound))
      .map(({ part, sound, judgement, steps, stuck }) => ({
        ...asDocumented(wiring, judgement!),
        part,
        sound,
        steps: steps.map(({ when, isDerived, step }) => ({ when, derived: isDerived, ...step })),
        stuck,
      })),
    mistakes,
    resets: resets
      .filter(({ sound }) => sounds.has(sound))
      .map(({ isUnknown, ...reset }) => ({ ...reset, unknown: isUnknown })),
  };
}

/** Whether something that is missing says anything of these sounds. */
const isAsked = (item: Unjudged, sounds: readonly Sound[]): boolean =>
  !('sound' in item) || sounds.some((sound) => sound.id === item.sound);

const asJson = (show: Show, missing: readonly Unjudged[]): readonly object[] =>
  missing.map((item) => ({ ...item, text: unjudgedWords(show, item) }));

const notJudged = (show: Show, missing: readonly Unjudged[]): string =>
  missing.map((item) => `not judged: ${unjudgedWords(show, item)}\n`).join('');

function traceAsDocumented({ cycles, passes, ...trace }: Trace): object {
  return {
    ...trace,
    passes: passes.map(({ activeSections, ...pass }) => ({ ...pass, does: activeSections })),
    circles: cycles,
  };
}

/** The keys of the JSON stay as they are documented, whatever the code calls them. */
function asDocumented<T extends { readonly sequence: Sequence | null }>(
  wiring: Wiring,
  { sequence, ...one }: T,
): object {
  if (!sequence) return { ...one, sequence };
  const { needs, lostAtPowerUp: lost, steps } = sequence;
  const wordsOf = (loss: Loss) => ({ point: loss.point, words: lossWords(wiring, loss) });
  const stones = steps.map((step) => (step.lost ? { ...step, lost: wordsOf(step.lost) } : step));
  const lostAtPowerUp = lost && { device: lost.firing, ...wordsOf(lost) };
  return { ...one, sequence: { needs, ...(lostAtPowerUp ? { lostAtPowerUp } : {}), stones } };
}
