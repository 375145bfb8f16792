import type { Sound } from '../../model/rig.ts';
import { ChoiceSequence } from '../deliver/choice-sequence.ts';
import { SimulatedRig } from '../deliver/simulated-rig.ts';
import type { Prover } from '../prove/prover.ts';
import type { ModelSlot } from '../state/state-model.ts';
import { NeedPin } from '../state/values.ts';

/**
 * What an accidental press of a switch is to the rig, the gravest first: it silences sounds, it makes something besides
 * its own piece wrong, it changes its own piece alone, or nothing is heard of it.
 */
export const strayEffects = ['silences', 'spoils-others', 'changes-itself', 'unheard'] as const;
export type StrayEffect = (typeof strayEffects)[number];

/** What one unplanned foot switch does to the sounds of a rig. */
export interface StrayReport {
  readonly device: string;
  readonly switch: string;
  readonly effect: StrayEffect;
  /** How many sounds came up right before the foot, and so could be tried. */
  readonly tried: number;
  /** Sounds that fall silent as soon as the foot is off, the rig having been in each of them. */
  readonly silenced: readonly string[];
  /** Sounds that are wrong then, those that are silent among them. */
  readonly atOnce: readonly string[];
  /** Sounds whose next press does not bring them up right. */
  readonly after: readonly string[];
  /** Whether the same switch, pressed again, makes each of them right that was wrong at once. */
  readonly isUndoneByItself: boolean;
}

/**
 * Level 3 told switch by switch, in document order: what breaks at once, what the next presses still bring up wrong.
 */
export function strayReports(prover: Prover): readonly StrayReport[] {
  return prover.strays.map((stray) => {
    const tried = prover.pairs().flatMap(({ slot, sound }) => {
      const strike = strikeOf(prover, stray, slot, sound);
      return strike ? [{ sound: sound.id, ...strike }] : [];
    });
    const struck = tried.filter(({ effect }) => effect !== 'unheard');
    const effect = strayEffects.find((effect) => struck.some((strike) => strike.effect === effect)) ?? 'unheard';
    return {
      device: stray.device,
      switch: stray.switch,
      effect,
      tried: new Set(tried.map(({ sound }) => sound)).size,
      silenced: struck.flatMap(({ effect: is, sound }) => (is === 'silences' ? [sound] : [])),
      atOnce: struck.map(({ sound }) => sound),
      after: prover.pairs().flatMap(({ slot, sound }) => {
        const isAlreadyWrong = prover.judge(slot, sound, 2).verdict === 'does-not';
        return !isAlreadyWrong && prover.judgeAfterStray(stray.index, slot, sound) === 'does-not' ? [sound.id] : [];
      }),
      isUndoneByItself: struck.length > 0 && struck.every(({ isUndone }) => isUndone),
    };
  });
}

/** What a foot does to a sound that was right. */
interface Strike {
  readonly effect: StrayEffect;
  readonly isUndone: boolean;
}

/**
 * On the simulated rig: all up, the slot pressed, and where its sound is right then, what the foot makes of it; null
 * where it is not right, or turns on contents that nobody entered.
 */
function strikeOf(
  prover: Prover,
  stray: { readonly device: string; readonly switch: string },
  { slot }: ModelSlot,
  sound: Sound,
): Strike | null {
  const { model } = prover;
  const choices = new ChoiceSequence();
  choices.begin();
  const rig = new SimulatedRig(model, choices);
  const judged = (read = (variable: number) => rig.store.get(variable)) =>
    prover.comparison.judge(read, prover.targetOf(sound), { obey: true, pins: rig.store.pins });
  const press = () => rig.happen({ kind: 'foot', device: stray.device, switch: stray.switch, stray: true });
  try {
    if (!rig.comeUp({ needs: [] }) || !rig.happen({ kind: 'press', slot: slot.id }) || judged().is === 'wrong')
      return null;
    const before = rig.store.state.slice();
    const isSettled = press();
    const heard = judged();
    if (isSettled && heard.is !== 'wrong') return { effect: 'unheard', isUndone: true };
    // With its own piece as it was before, is all right?
    const own = (variable: number) =>
      model.variables[variable].device === stray.device ? before[variable] : rig.store.get(variable);
    const effect =
      heard.is === 'wrong' && heard.silent
        ? 'silences'
        : isSettled && judged(own).is !== 'wrong'
          ? 'changes-itself'
          : 'spoils-others';
    return { effect, isUndone: isSettled && press() && judged().is !== 'wrong' };
  } catch (reason) {
    if (reason instanceof NeedPin) return null;
    throw reason;
  }
}
