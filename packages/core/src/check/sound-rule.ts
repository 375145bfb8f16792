import { memoised } from '../model/memo.ts';
import type { Action, Rig, Slot, Sound } from '../model/rig.ts';
import type { Wiring } from '../model/wiring.ts';
import type { Trace } from '../trace/trace.ts';
import type { Context, Reported, Rule } from './define-rule.ts';
import { none, slotsOf, soundsOf } from './queries.ts';

/** A slot whose actions somebody wrote by hand. */
export type HandSlot = Slot & { readonly actions: readonly Action[] };

/**
 * All that a rule about single sounds may ask. What it reports is kept while these stay the same, whatever else is
 * edited.
 */
export interface SoundCase {
  readonly sound: Sound;
  readonly byHand: readonly HandSlot[];
  readonly wiring: Wiring;
  /** What the signal does in it. */
  readonly trace: () => Trace;
}

export interface SoundRule<M extends string> extends Pick<Rule<M>, 'meta'> {
  /** Whether the rule has anything to say of this rig (its conventions, what is in it); asked at every revision. */
  readonly applies?: (context: Context) => boolean;
  /** Whether it tells preset numbers as the device's panel counts them: such a rule looks again when that changes. */
  readonly tellsNumbers?: boolean;
  readonly each: (soundCase: SoundCase) => readonly Reported<M>[];
}

/** Whether it is to be heard and is; a sound that is silent by mistake is told elsewhere. */
export const isHeard = ({ sound, trace }: SoundCase): boolean => !sound.silence && trace().sounds;

/**
 * A sound with what each rule reported of it, by the rule: kept as long as the sound, its slots and the rig
 * stay as they are.
 */
interface Case {
  readonly one: SoundCase;
  readonly slots: readonly Slot[];
  readonly reported: Map<SoundRule<string>['meta'], readonly Reported<string>[]>;
}

/** The sounds of a rig, one by one. */
class Cases {
  private sounds: Rig['sounds'] | undefined;
  private slots: Rig['slots'] | undefined;
  private list: readonly Case[] = none;

  of(context: Context): readonly Case[] {
    const { sounds, slots } = context.show.rig;
    if (this.sounds !== sounds || this.slots !== slots) {
      const before = new Map(this.list.map((known) => [known.one.sound, known]));
      this.list = soundsOf(context).map((sound) => caseOf(context, sound, before.get(sound)));
      this.sounds = sounds;
      this.slots = slots;
    }
    return this.list;
  }
}

function caseOf(context: Context, sound: Sound, before: Case | undefined): Case {
  const slots = slotsOf(context, sound);
  if (before && before.slots.length === slots.length && before.slots.every((slot, i) => slot === slots[i]))
    return before;
  const { wiring, tracer } = context;
  return {
    one: {
      sound,
      byHand: slots.filter((slot): slot is HandSlot => slot.actions !== null),
      wiring,
      trace: () => tracer.trace(sound),
    },
    slots,
    reported: new Map(),
  };
}

const cases = () => new Cases();
const casesWiredAlike = memoised(({ wiring }: Context) => wiring.wiringMemo, cases);
const casesToldAlike = memoised(({ wiring }: Context) => wiring.displayMemo, cases);

/**
 * What is so whatever the contents are that nobody entered: of a sound whose way they decide, what is reported in each
 * of its worlds.
 */
function known<M extends string>(
  { tracer }: Context,
  one: SoundCase,
  each: SoundRule<M>['each'],
): readonly Reported<M>[] {
  if (one.trace().undecided.length === 0) return each(one);
  const [first, ...others] = tracer.worlds(one.sound).map((trace) => each({ ...one, trace: () => trace }));
  const keys = others.map((reports) => new Set(reports.map((report) => JSON.stringify(report))));
  return first.filter((report) => keys.every((reported) => reported.has(JSON.stringify(report))));
}

/** A rule that looks at the sounds one by one, and again only at those that an edit touched. */
export function defineSoundRule<M extends string>({ meta, applies, tellsNumbers, each }: SoundRule<M>): Rule<M> {
  const casesOf = tellsNumbers ? casesToldAlike : casesWiredAlike;
  return {
    meta,
    check: (context) => {
      if (applies && !applies(context)) return none;
      const found: Reported<M>[] = [];
      for (const { one, reported } of casesOf(context).of(context)) {
        let own = reported.get(meta) as readonly Reported<M>[] | undefined;
        if (!own) reported.set(meta, (own = known(context, one, each)));
        for (let i = 0; i < own.length; i += 1) found.push(own[i]);
      }
      return found;
    },
  };
}
