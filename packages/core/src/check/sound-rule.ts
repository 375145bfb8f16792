import type { Action, Slot, Sound } from '../model/documents.ts';
import type { Wiring } from '../model/wiring.ts';
import type { Trace, Tracer } from '../trace/trace.ts';
import { slotsOf, soundsOf } from './ask.ts';
import type { Context, Reported, Rule } from './define-rule.ts';

/** A slot whose actions somebody wrote by hand. */
export type HandSlot = Slot & { readonly actions: readonly Action[] };

/** All that a rule about single sounds may ask. What it reports is kept while these stay the same, whatever else is edited. */
export interface SoundCase {
  readonly sound: Sound;
  readonly byHand: readonly HandSlot[];
  readonly wiring: Wiring;
  /** What the signal does in it. */
  readonly trace: () => Trace;
}

export interface SoundRule<M extends string> extends Pick<Rule<M>, 'meta'> {
  /** Whether the rule has anything to say of this rig (its schools, what is in it); asked at every revision. */
  readonly applies?: (context: Context) => boolean;
  /** Whether it tells preset numbers as the device's panel counts them: such a rule looks again when that changes. */
  readonly tellsNumbers?: boolean;
  readonly each: (one: SoundCase) => readonly Reported<M>[];
}

/** Whether it is to be heard and is; a sound that is silent by mistake is told elsewhere. */
export const isHeard = ({ sound, trace }: SoundCase): boolean => !sound.silence && trace().sounds;

interface Known<M extends string> {
  readonly slots: readonly Slot[];
  readonly reported: readonly Reported<M>[];
}

const cases = new WeakMap<Sound, { readonly slots: readonly Slot[]; readonly tracer: Tracer; readonly one: SoundCase }>();

/** The very same for every rule that asks. */
function caseOf(wiring: Wiring, tracer: Tracer, sound: Sound, slots: readonly Slot[]): SoundCase {
  const known = cases.get(sound);
  if (known && known.slots === slots && known.tracer === tracer && known.one.wiring === wiring) return known.one;
  const one: SoundCase = { sound, byHand: slots.filter((slot): slot is HandSlot => slot.actions !== null), wiring, trace: () => tracer.trace(sound) };
  cases.set(sound, { slots, tracer, one });
  return one;
}

/** A rule that looks at the sounds one by one, and again only at those that an edit touched. */
export function defineSoundRule<M extends string>({ meta, applies, tellsNumbers, each }: SoundRule<M>): Rule<M> {
  const byRig = new WeakMap<object, WeakMap<Sound, Known<M>>>();
  return {
    meta,
    check: (context) => {
      if (applies && !applies(context)) return [];
      const { wiring, tracer } = context;
      const rig = tellsNumbers ? wiring.devices : wiring.ways;
      let bySound = byRig.get(rig);
      if (!bySound) byRig.set(rig, (bySound = new WeakMap()));
      const found: Reported<M>[] = [];
      for (const sound of soundsOf(context)) {
        const slots = slotsOf(context, sound);
        let known = bySound.get(sound);
        if (!known || known.slots.length !== slots.length || known.slots.some((slot, i) => slot !== slots[i])) {
          bySound.set(sound, (known = { slots, reported: each(caseOf(wiring, tracer, sound, slots)) }));
        }
        found.push(...known.reported);
      }
      return found;
    },
  };
}
