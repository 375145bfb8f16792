import type { Show } from '../model/documents.ts';
import { assertNever } from '../units/problem.ts';
import { validateRig } from '../model/validate.ts';
import type { Level, Verdict } from '../recall/prove/verdict.ts';
import type { Prover } from '../recall/prove/prover.ts';
import { proverOf } from '../recall/prove/prover-of.ts';
import { BruteForce, TooMuch } from './brute-force/brute-force.ts';
import type { PlainAction } from './brute-force/plain-rig.ts';
import { withPages } from './paged-rigs.ts';
import { Random } from './random.ts';
import { randomRig, withFeet, withLoops, withStoredRouting, withStoredUnits } from './random-rig.ts';
import { adaptCase, type CaseRig, slotNames } from './recall-adapter.ts';

export interface Disagreement {
  readonly seed: number;
  readonly slot: string;
  readonly level: Level;
  readonly proof: string;
  readonly oracle: string;
}

export interface Compared {
  readonly compared: number;
  readonly failing: boolean;
  readonly joint: boolean;
  readonly verdicts: readonly Verdict[];
  readonly sizes: readonly number[];
  readonly disagreements: readonly Disagreement[];
}

/** From this seed on rigs have paths and messages that presets open: those before stay what they were. */
const firstOfStoredRouting = 20_000_000;

/** And from this one on feet and hands bring up parts of the set. */
export const firstByFeet = 30_000_000;

/** And from this one on their switches are something else on another page. */
export const firstOfPages = 35_000_000;

/** And from this one on messages come round instead. */
const firstOfLoops = 40_000_000;

/** And from this one on units store orders, inputs, branches, blocks, moves and held sounds. */
const firstOfStoredUnits = 50_000_000;

/** The seed's rig; some slots are generated from their sounds instead of written by hand. */
export const seededShow = (seed: number): Show => seededRig(seed).show;

export function seededRig(seed: number): { readonly rig: CaseRig; readonly show: Show } {
  const r = new Random(seed);
  const plain = randomRig(r);
  const routed = seed < firstOfStoredRouting ? plain : withStoredRouting(plain, new Random(seed + 1));
  const rig =
    seed < firstByFeet
      ? routed
      : seed < firstOfLoops
        ? seed < firstOfPages
          ? withFeet(routed, new Random(seed + 2))
          : withPages(withFeet(routed, new Random(seed + 2)), new Random(seed + 5))
        : seed < firstOfStoredUnits
          ? withLoops(routed, new Random(seed + 3))
          : withStoredUnits(routed, new Random(seed + 4));
  const { show } = adaptCase(rig);
  const slots = Object.fromEntries(
    Object.entries(show.rig.slots).map(([id, slot]) => [
      id,
      slot.sound !== null && r.chance(0.15) ? { ...slot, actions: null } : slot,
    ]),
  );
  return { rig, show: { ...show, rig: { ...show.rig, slots } } };
}

/** Proof against whole-rig enumeration on one seeded rig; null where the rig is too large to enumerate. */
export function compareSeed(seed: number, limit = 250): Compared | null {
  const found = compareRig(seed, seededRig(seed), limit);
  if (!found || found.disagreements.length === 0) return found;
  // The enumeration follows every variable, so that a circle of messages may take it past the message limit before
  // it comes round; a space of few variables sees it come round sooner. With room enough both must say the same.
  const again = compareRig(seed, withMessageLimit(seededRig(seed), 1_500), limit);
  return again ? { ...found, disagreements: again.disagreements } : found;
}

const withMessageLimit = ({ rig, show }: { rig: CaseRig; show: Show }, messageLimit: number) => ({
  rig: { ...rig, message_limit: messageLimit },
  show: { ...show, rig: { ...show.rig, settings: { ...show.rig.settings, messageLimit } } },
});

function compareRig(seed: number, { rig, show }: { rig: CaseRig; show: Show }, limit: number): Compared | null {
  const checked = validateRig(show.rig);
  if (!checked.ok) throw new Error(`seed ${seed}: ${JSON.stringify(checked.problems)}`);
  const prover = proverOf(show);
  const names = slotNames(rig);
  const disagreements: Disagreement[] = [];
  const verdicts: Verdict[] = [];
  try {
    const enumeration = new BruteForce(rig, (...slot) => plainActions(prover, names, slot), limit);
    for (const [i, truth] of footPlanOf(enumeration).entries()) {
      const mine = plannedIn(prover)[i];
      // Contents that decide, or a set that is not known any more: neither says anything.
      if (mine === 'unknown' || truth === 'unknown') continue;
      verdicts.push(truth === 'none' ? 'does-not' : 'recalls');
      if (mine !== truth) disagreements.push({ seed, slot: `by feet ${i + 1}`, level: 1, proof: mine, oracle: truth });
    }
    for (const { slot, sound } of prover.pairs())
      for (const level of [1, 2, 3, 4] as Level[]) {
        const truth = enumeration.judge(...names.get(slot.slot.id)!, level);
        const mine = prover.judge(slot, sound, level);
        verdicts.push(truth.verdict);
        const hasLength = truth.lengths.length === 0 || truth.lengths.includes(mine.length ?? NaN);
        if (truth.verdict !== mine.verdict || !hasLength)
          disagreements.push({
            seed,
            slot: slot.slot.id,
            level,
            proof: `${mine.verdict} ${mine.length}`,
            oracle: `${truth.verdict} ${truth.lengths.join(' or ')}`,
          });
      }
  } catch (reason) {
    if (reason instanceof TooMuch) return null;
    throw reason;
  }
  const joint = prover.spaceSizes().some((size) => size.joint);
  return {
    compared: verdicts.length,
    failing: verdicts.some((verdict) => verdict === 'does-not'),
    joint,
    verdicts,
    sizes: prover.spaceSizes().map((size) => size.states),
    disagreements,
  };
}

const sorted = (moves: readonly string[]): string => [...moves].sort().join(', ');

/** What feet and hands do for each part without a slot, in the case's own names. */
const footPlanOf = (enumeration: BruteForce): readonly string[] =>
  enumeration
    .byFeet()
    .map(({ done }) =>
      done === null || done.is === 'lost'
        ? 'unknown'
        : done.is === 'none'
          ? 'none'
          : sorted(
              done.moves.map((event) =>
                event.kind === 'foot'
                  ? `${event.device} ${event.switch}`
                  : event.kind === 'cue'
                    ? `${event.control}=${event.value}`
                    : event.kind,
              ),
            ),
    );

const plannedIn = (prover: Prover): readonly string[] =>
  prover.set.parts.flatMap(({ slot, sound, part, events, failed }) => {
    if (slot || !sound) return [];
    if (failed) return failed.is === 'stuck' ? 'none' : 'unknown';
    const { verdict } = prover.playPart(part.id, sound);
    if (verdict !== 'recalls') return `not right: ${verdict}`;
    return sorted(
      events.flatMap(({ isDerived, action }) =>
        !isDerived || !action
          ? []
          : action.kind === 'foot'
            ? `${action.device.slice(2)} ${action.switch}`
            : `${action.control.slice(2).replace('/', '.')}=${action.value}`,
      ),
    );
  });

/** What a slot of the case does, as the case would have it; the bytes of a generated one come from the program. */
function plainActions(
  { model }: Prover,
  names: ReturnType<typeof slotNames>,
  [controller, name]: readonly [string, string],
): readonly PlainAction[] {
  const id = [...names].find(([, [of, slot]]) => of === controller && slot === name)![0];
  const spelled = (part: string) =>
    part.replace(/_([0-9a-f]+)_/g, (_, code: string) => String.fromCodePoint(parseInt(code, 16)));
  return model.slot.get(id)!.actions.map((action): PlainAction => {
    switch (action.kind) {
      case 'program':
        return { pc: action.program, ch: action.channel };
      case 'control':
        return { cc: action.cc, val: action.value, ch: action.channel };
      case 'set':
        return { loop: spelled(action.control), to: Number(action.value) };
      case 'contact':
        return { contact: spelled(action.contact), to: action.to };
      case 'wait':
        return { wait_ms: action.ms };
      case 'save':
      case 'restore':
        return { [action.kind]: spelled(action.control) };
      default:
        return assertNever(action, 'action');
    }
  });
}
