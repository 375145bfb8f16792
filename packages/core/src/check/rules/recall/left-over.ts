import { controlRef, splitRef } from '../../../model/documents.ts';
import { controlLabel, valueLabel } from '../../../model/labels.ts';
import { memoised } from '../../../model/memo.ts';
import { type ControlRef, type Slot, type Sound } from '../../../model/rig.ts';
import type { Wiring } from '../../../model/wiring.ts';
import { compiler } from '../../../program/compile.ts';
import { wouldSettle } from '../../../recall/explore/settling.ts';
import type { Judgement } from '../../../recall/prove/verdict.ts';
import { firstWrong } from '../../../recall/replay/play.ts';
import { type Context, defineRule, type Reported, type Severity } from '../../define-rule.ts';
import { generateFix } from '../../fix.ts';

export const leftOver = defineRule({
  meta: {
    id: 'recall/left-over',
    severity: 'fix-before-load-in',
    title: 'Wrong sound after an earlier press',
    why: 'From some state that the rig can be in, this slot does not set everything that the sound needs, so what was there before is still heard.',
    remedy: 'Let the slot send it: generate its actions from the sound, or add the missing action by hand.',
    source: 'proved from anywhere: the shortest sequence is on the Proof station',
    messages: {
      left: '{sound} fails {after}: {what} is {cameUp}, wanted {wanted}.',
      wrong: '{sound} fails {after}.',
      unquiet: '{sound}: the messages of its slot never settle.',
    },
  },
  check: (context) =>
    context.prover.pairs().flatMap(({ slot, sound }): Reported<'left' | 'wrong' | 'unquiet'>[] => {
      const judgement = context.prover.judge(slot, sound, 2);
      return judgement.verdict === 'does-not' ? [report(context, slot.slot, sound, judgement)] : [];
    }),
});

function report(
  context: Context,
  slot: Slot,
  sound: Sound,
  judgement: Judgement,
): Reported<'left' | 'wrong' | 'unquiet'> {
  const at = { slot: slot.id, sound: sound.id };
  const length = judgement.length ?? 0;
  const after = length === 1 ? 'after 1 step' : `after ${length} steps`;
  if (judgement.sequence?.steps.some((step) => step.kind === 'press' && step.never))
    return {
      messageId: 'unquiet',
      at,
      data: { sound: sound.name },
      ...(slot.actions !== null && isQuietGenerated(context, slot) ? { fix: generateFix(slot) } : {}),
    };
  const wrong = judgement.sequence ? firstWrong(context.prover, judgement.sequence, sound) : undefined;
  if (!wrong) return { messageId: 'wrong', at, data: { sound: sound.name, length, after } };
  const { device, control } = splitRef(wrong.ref);
  const wired = context.wiring.device.get(device)!;
  const facts = wired.control.get(control);
  const severity: Severity = facts?.weight ? 'stops-the-show' : 'fix-before-load-in';
  return {
    messageId: 'left',
    severity,
    at: { ...at, device },
    data: {
      sound: sound.name,
      length,
      after,
      what: controlLabel(context.wiring, wrong.ref),
      cameUp: valueLabel(context.wiring, wrong.ref, wrong.cameUp),
      wanted: valueLabel(context.wiring, wrong.ref, wrong.wanted),
    },
    ...(slot.actions !== null && isGenerated(context, slot, wrong.ref) ? { fix: generateFix(slot) } : {}),
  };
}

/** Whether the slot, generated from its sound, would fall quiet. */
const isQuietGenerated = ({ wiring, prover: { model } }: Context, slot: Slot): boolean =>
  wouldSettle(
    model,
    model.slot.get(slot.id)!,
    compiler(wiring)({ ...slot, actions: null }).map(({ action }) => action),
  );

/**
 * Whether the slot, generated from its sound, would put a control where it is wanted: by an action of its own, or with
 * the preset that stores it.
 */
function isGenerated({ wiring }: Context, slot: Slot, ref: ControlRef): boolean {
  const { device, control } = splitRef(ref);
  const refs = generatedRefs(wiring, slot);
  return (
    refs.has(ref) ||
    (wiring.device.get(device)?.control.get(control)?.scope === 'preset' && refs.has(controlRef(device, 'preset')))
  );
}

const generated = memoised(
  ({ displayMemo }: Wiring) => displayMemo,
  () => new WeakMap<Slot, { readonly sound: Sound | undefined; readonly refs: ReadonlySet<ControlRef> }>(),
);

/**
 * The controls that a slot would set if it were generated from its sound; found once for a slot on a rig that is wired
 * as it is.
 */
function generatedRefs(wiring: Wiring, slot: Slot): ReadonlySet<ControlRef> {
  const sound = slot.sound === null ? undefined : wiring.rig.sounds[slot.sound];
  const known = generated(wiring).get(slot);
  if (known && known.sound === sound) return known.refs;
  const refs = new Set<ControlRef>();
  for (const { action, intent } of compiler(wiring)({ ...slot, actions: null })) {
    if (action.kind === 'set') refs.add(controlRef(slot.controller, action.control));
    else if (intent.kind === 'want') refs.add(intent.ref);
  }
  generated(wiring).set(slot, { sound, refs });
  return refs;
}
