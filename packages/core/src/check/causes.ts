import type { Cause, Context, Finding } from './define-rule.ts';
import { isPowered } from './speaker-cables.ts';

/** What is found of a sound because it is silent, and goes when it sounds. */
const ofSilence = new Set([
  'routing/dead-end',
  'routing/not-on-path',
  'recall/left-over',
  'recall/identical-sounds',
] as const satisfies readonly string[]) as ReadonlySet<string>;

/**
 * Findings with the one that each follows from, if any. An amp without its load is the cause of silence, and silence of
 * what else is found of a sound; what a sound has of its own beside that is found again once it sounds.
 */
export function withCauses({ show, tracer, wiring }: Context, findings: readonly Finding[]): readonly Finding[] {
  const noLoad = new Map(
    findings.flatMap((finding) =>
      finding.ruleId === 'loudspeakers/no-load' ? [[finding.at.device, causeOf(finding)]] : [],
    ),
  );
  const silent = new Map<string, Cause>();
  for (const finding of findings) {
    if (finding.ruleId !== 'routing/no-route' || finding.at.sound === undefined) continue;
    const open = tracer
      .trace(show.rig.sounds[finding.at.sound])
      .deadEnds.find(({ device, jack }) => noLoad.has(device) && isPowered(wiring.device.get(device)?.jack.get(jack)));
    silent.set(finding.at.sound, (open && noLoad.get(open.device)) ?? causeOf(finding));
  }
  if (silent.size === 0) return findings;
  return findings.map((finding) => {
    const sound = finding.at.sound ?? (finding.at.slot === undefined ? null : show.rig.slots[finding.at.slot]?.sound);
    const cause = sound === null || sound === undefined ? undefined : silent.get(sound);
    const isOfIt =
      finding.ruleId === 'routing/no-route' ? cause?.ruleId !== finding.ruleId : ofSilence.has(finding.ruleId);
    return cause && isOfIt ? { ...finding, follows: cause } : finding;
  });
}

const causeOf = ({ ruleId, at }: Finding): Cause => ({ ruleId, at });
