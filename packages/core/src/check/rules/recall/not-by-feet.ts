import { splitRef } from '../../../model/documents.ts';
import { controlLabel } from '../../../model/labels.ts';
import type { ControlRef } from '../../../model/rig.ts';
import { ownerOf, type Wiring } from '../../../model/wiring.ts';
import { type PartPlan, partPlans } from '../../../recall/replay/foot-plan.ts';
import { defineRule, type Finding, type Reported } from '../../define-rule.ts';
import { setFix } from '../../fix.ts';

export const notByFeet = defineRule({
  meta: {
    id: 'recall/not-by-feet',
    severity: 'stops-the-show',
    title: 'A sound that feet and hands cannot bring up',
    why: 'No slot plays this part, and no presses and hand moves lead from where the set is then to the sound.',
    remedy: 'Give the sound a slot, say that a hand sets what is stuck, or want something else of it.',
    source: 'every sequence of presses and hand moves, from power-up through the set',
    messages: {
      stuck: 'Nothing that foot or hand can do puts {controls} where {sound} wants it, for {parts}.',
      none: 'No presses and hand moves bring up {sound} for {parts}.',
      unknown: 'It cannot be known whether feet and hands bring up {sound} for {parts}.',
    },
  },
  check: ({ show, wiring, prover }) => {
    const { rig, songbook } = show;
    const bySound = new Map<string, { readonly plan: PartPlan; readonly parts: string[] }>();
    for (const plan of partPlans(prover)) {
      if (!plan.judgement || plan.judgement.verdict === 'recalls') continue;
      const key = [plan.sound, plan.judgement.verdict, ...(plan.stuck ?? [])].join(' ');
      const part = songbook.parts[plan.part];
      const name = `${songbook.songs[part.song].name}, ${part.name}`;
      const known = bySound.get(key);
      if (known) known.parts.push(name);
      else bySound.set(key, { plan, parts: [name] });
    }
    return [...bySound.values()].map(
      ({ plan: { sound, judgement, stuck }, parts }): Reported<'stuck' | 'none' | 'unknown'> => {
        const more = parts.length - 1;
        const data = { sound: rig.sounds[sound!].name, parts: more > 0 ? `${parts[0]} and ${more} more` : parts[0] };
        const at = { sound: sound! };
        if (judgement!.verdict !== 'does-not')
          return { messageId: 'unknown', severity: 'fix-before-load-in', at, data };
        if (!stuck || stuck.length === 0) return { messageId: 'none', at, data };
        const controls = stuck.map((ref) => controlLabel(wiring, ref)).join(', ');
        const fix = stuck.length === 1 ? byHandFix(wiring, stuck[0]) : undefined;
        return {
          messageId: 'stuck',
          at: { ...at, device: splitRef(stuck[0]).device },
          data: { ...data, controls },
          ...(fix ? { fix } : {}),
        };
      },
    );
  },
});

function byHandFix(wiring: Wiring, ref: ControlRef): Finding['fix'] {
  const { device: id, control: name } = splitRef(ref);
  const wired = wiring.device.get(id);
  const control = wired?.control.get(name);
  if (!wired || !control || ownerOf(wired, control) !== 'programmed') return undefined;
  const { owners } = wired.device;
  return setFix(
    `A hand sets ${controlLabel(wiring, ref)}`,
    ['devices', id, 'owners'],
    { ...owners, [name]: 'hand' },
    owners,
  );
}
