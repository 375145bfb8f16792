import { bankDistance } from '../../model/slots.ts';
import type { CompiledEvent } from '../explore/event-table.ts';
import type { Exploration } from '../explore/exploration.ts';
import type { StateSpace } from '../explore/state-space.ts';
import type { ModelSlot } from '../state/state-model.ts';
import type { ProofBase } from './base.ts';
import { pathTo } from './counterexample.ts';
import { type Answer, recallsAnswer } from './verdict.ts';

/** What presses that do not settle mean for a slot: its own, those that may come before it, and power-up. */
export function settlingAnswers(base: ProofBase, slot: ModelSlot, exploration: Exploration): Answer[] {
  const isExcluded = base.excluded.has(slot.index);
  const { level, stray } = exploration.question;
  const mayNotSettle = base.mayNotSettle(level, stray);
  if (mayNotSettle.length === 0 && !isExcluded) return [];
  return [
    ...powerUpAnswers(base, slot, exploration),
    ...mayNotSettle.flatMap((compiled) => answersBefore(base, compiled, slot, exploration)),
    ...(isExcluded ? [excludedAnswer(base, slot, exploration)] : []),
  ];
}

function answersBefore(base: ProofBase, compiled: CompiledEvent, slot: ModelSlot, exploration: Exploration): Answer[] {
  const { model } = base;
  const space = spaceOf(base, compiled, exploration);
  // Every other event that may not settle has a space of its own, with the banks that it takes.
  return space.unsettled.flatMap((unsettled) => {
    if (unsettled.compiled !== compiled) return [];
    const { event } = unsettled.compiled;
    const length = unsettled.from.depth + 1;
    const before = unknown(
      length + movesAfter(base, unsettled.compiled, slot) + 1,
      'a press before it may never settle',
    );
    if (!unsettled.whole || event.kind !== 'press' || event.slot.index !== slot.index) return [before];
    const path = pathTo(model, space.stepper, unsettled.from);
    const steps = [...path.steps, { kind: 'press' as const, slot: slot.slot.id, never: true }];
    const verdict = unsettled.outcome === 'never-settles' ? 'does-not' : 'cannot-be-known';
    return [{ verdict, length, sequence: { ...path, steps }, symbols: [] }, before];
  });
}

/** Power-up may fire a slot that never settles: nothing after it is known. */
function powerUpAnswers(base: ProofBase, slot: ModelSlot, exploration: Exploration): Answer[] {
  for (const { controller } of base.model.devices) {
    const fired = controller?.powerUpSlot === undefined ? undefined : base.model.slot.get(controller.powerUpSlot);
    const compiled = fired && base.table.press.get(fired.index);
    if (compiled && spaceOf(base, compiled, exploration).startsUnsettled)
      return [unknown(movesAfter(base, compiled, slot) + 1, 'power-up may never settle')];
  }
  return [];
}

function excludedAnswer(base: ProofBase, slot: ModelSlot, exploration: Exploration): Answer {
  const compiled = base.table.press.get(slot.index)!;
  const first = spaceOf(base, compiled, exploration).unsettled.find((item) => item.compiled === compiled && item.whole);
  if (!first) return recallsAnswer;
  const verdict = first.outcome === 'never-settles' ? 'does-not' : 'cannot-be-known';
  return { verdict, length: first.from.depth + 1, sequence: null, symbols: [] };
}

const unknown = (length: number, gaveUp: string): Answer => ({
  verdict: 'cannot-be-known',
  length,
  sequence: null,
  symbols: [],
  gaveUp,
});

const spaceOf = (base: ProofBase, compiled: CompiledEvent, exploration: Exploration): StateSpace =>
  exploration.settlingSpace(
    compiled,
    base.banksOf(
      compiled.event.kind === 'press'
        ? [compiled.event.slot.slot.controller]
        : base.model.devices.flatMap((device) => (device.controller ? [device.id] : [])),
    ),
  );

function movesAfter({ model }: ProofBase, { event }: CompiledEvent, { slot }: ModelSlot): number {
  const { facts } = model.device.get(slot.controller)!.controller!;
  const from = event.kind === 'press' && event.slot.slot.controller === slot.controller ? event.slot.slot.bank : 0;
  return bankDistance(facts.banks, from, slot.bank);
}
