import type { Action } from '../model/rig.ts';
import type { WiredDevice } from '../model/wiring.ts';
import { isMidiChannel, isSevenBit } from '../units/quantities.ts';

export type ActionLine =
  | { readonly ok: true; readonly action: Action }
  | { readonly ok: false; readonly reason: 'not-understood' | 'out-of-range' | 'no-loop' | 'no-contact' };

const refused = (reason: Exclude<ActionLine, { ok: true }>['reason']): ActionLine => ({ ok: false, reason });

/**
 * Reads one action as people type it, numbers as sent: `pc 12 ch 3`, `cc 102 127 ch 2` (or `cc 102 = 127 ch 2`),
 * `loop 4 on`, `contact 1 open`, `wait 20`. A momentary switch may also `remember loop 4` and `restore loop 4`.
 */
export function readActionLine(controller: WiredDevice, typed: string, of: 'slot' | 'momentary' = 'slot'): ActionLine {
  const words = typed.toLowerCase().replaceAll('=', ' ').replaceAll(',', ' ').split(/\s+/).filter(Boolean);
  const [kind, ...rest] = words;
  const numbers = rest.filter((word) => /^\d+(\.\d+)?$/.test(word)).map(Number);
  const has = (...some: string[]) => some.some((word) => rest.includes(word));
  switch (kind) {
    case 'pc':
    case 'program':
      return numbers.length === 2 && has('ch', 'channel')
        ? midi({ kind: 'program', program: numbers[0], channel: numbers[1] })
        : refused('not-understood');
    case 'cc':
    case 'control':
      return numbers.length === 3 && has('ch', 'channel')
        ? midi({ kind: 'control', cc: numbers[0], value: numbers[1], channel: numbers[2] })
        : refused('not-understood');
    case 'loop':
    case 'contact':
      return own(controller, kind, numbers, has('in', 'on', 'closed') ? 1 : has('out', 'off', 'open') ? 0 : null);
    case 'wait':
      if (numbers.length !== 1) return refused('not-understood');
      return numbers[0] <= 60_000 ? { ok: true, action: { kind: 'wait', ms: numbers[0] } } : refused('out-of-range');
    case 'remember':
    case 'restore':
      return of === 'momentary' && rest[0] === 'loop'
        ? remembered(controller, kind === 'remember' ? 'save' : 'restore', numbers)
        : refused('not-understood');
    default:
      return refused('not-understood');
  }
}

function midi(action: Extract<Action, { readonly kind: 'program' | 'control' }>): ActionLine {
  const data = action.kind === 'program' ? [action.program] : [action.cc, action.value];
  return isMidiChannel(action.channel) && data.every(isSevenBit) ? { ok: true, action } : refused('out-of-range');
}

function remembered(controller: WiredDevice, kind: 'save' | 'restore', numbers: readonly number[]): ActionLine {
  if (numbers.length !== 1) return refused('not-understood');
  const loop = controller.anatomy.controller?.loops[numbers[0] - 1];
  return loop === undefined ? refused('no-loop') : { ok: true, action: { kind, control: loop } };
}

function own(
  controller: WiredDevice,
  kind: 'loop' | 'contact',
  numbers: readonly number[],
  to: 0 | 1 | null,
): ActionLine {
  if (numbers.length !== 1 || to === null) return refused('not-understood');
  const facts = controller.anatomy.controller;
  const id = kind === 'loop' ? facts?.loops[numbers[0] - 1] : facts?.contacts[numbers[0] - 1]?.id;
  if (id === undefined) return refused(kind === 'loop' ? 'no-loop' : 'no-contact');
  const action: Action =
    kind === 'loop' ? { kind: 'set', control: id, value: to } : { kind: 'contact', contact: id, to };
  return { ok: true, action };
}
