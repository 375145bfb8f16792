import type { Cause, Context, Finding } from './define-rule.ts';
import { isPowered } from './speaker-cables.ts';

/** What is found of a sound because it is silent, and goes when it sounds. */
const ofSilence = new Set([
  'routing/dead-end',
  'routing/not-on-path',
  'recall/left-over',
  'recall/identical-sounds',
] as const satisfies readonly string[]) as ReadonlySet<string>;

/** What nothing reaches at a device: a cable or a channel that is missing there. What is left over there follows. */
const unreachable = new Set([
  'midi/no-path',
  'routing/channel-unreachable',
] as const satisfies readonly string[]) as ReadonlySet<string>;

/** What is found once a sound, and is mended once for all of them where it stands at the same place. */
const once = new Set([
  'midi/no-path',
  'routing/dead-end',
  'routing/gate-after-tail',
  'routing/high-gain-in-loop',
  'routing/not-on-path',
  'routing/time-before-drive',
] as const satisfies readonly string[]) as ReadonlySet<string>;

const noRoute = 'routing/no-route';

/**
 * Findings with the one that each follows from, if any. A line without an end, or an amp without its load, is the cause
 * of silence; sounds that fall silent at the same place have one cause; and silence is the cause of what else is found
 * of a sound. What a sound has of its own beside that is found again once it sounds.
 */
export function withCauses(context: Context, findings: readonly Finding[]): readonly Finding[] {
  const silent = causesOfSilence(context, findings);
  const repeated = firstOfEach(findings);
  if (silent.size === 0 && repeated.size === 0) return findings;
  const unreached = new Map(
    findings.flatMap((finding) =>
      unreachable.has(finding.ruleId) ? [[finding.at.device, repeated.get(placeOf(finding)) ?? causeOf(finding)]] : [],
    ),
  );
  const { slots } = context.show.rig;
  return findings.map((finding) => {
    const sound = finding.at.sound ?? (finding.at.slot === undefined ? null : slots[finding.at.slot]?.sound);
    const cause =
      (sound === null || sound === undefined ? undefined : followsSilence(finding, silent.get(sound))) ??
      followsPlace(finding, repeated) ??
      (finding.ruleId === 'recall/left-over' ? unreached.get(finding.at.device) : undefined);
    return cause ? { ...finding, follows: cause } : finding;
  });
}

function followsSilence(finding: Finding, cause: Cause | undefined): Cause | undefined {
  const isOfIt = finding.ruleId === noRoute ? cause && !isSame(cause, finding) : ofSilence.has(finding.ruleId);
  return isOfIt ? cause : undefined;
}

function followsPlace(finding: Finding, repeated: ReadonlyMap<string, Cause>): Cause | undefined {
  const cause = once.has(finding.ruleId) ? repeated.get(placeOf(finding)) : undefined;
  return cause && !isSame(cause, finding) ? cause : undefined;
}

/** Of each sound that is silent, what silences it. */
function causesOfSilence({ show, tracer, wiring }: Context, findings: readonly Finding[]): ReadonlyMap<string, Cause> {
  const noLoad = new Map<string | undefined, Cause>();
  let noEnd: Cause | undefined;
  for (const finding of findings)
    if (finding.ruleId === 'loudspeakers/no-load') noLoad.set(finding.at.device, causeOf(finding));
    else if (finding.ruleId === 'routing/no-destination') noEnd ??= causeOf(finding);
  const silent = new Map<string, Cause>();
  /** By where the line stops, the first sound that is silent there. */
  const stopped = new Map<string, Cause>();
  for (const finding of findings) {
    if (finding.ruleId !== noRoute || finding.at.sound === undefined) continue;
    const { deadEnds } = tracer.trace(show.rig.sounds[finding.at.sound]);
    const open = deadEnds.find(
      ({ device, jack }) => noLoad.has(device) && isPowered(wiring.device.get(device)?.jack.get(jack)),
    );
    const place = JSON.stringify(deadEnds);
    if (!stopped.has(place)) stopped.set(place, causeOf(finding));
    silent.set(finding.at.sound, (open && noLoad.get(open.device)) ?? noEnd ?? stopped.get(place)!);
  }
  return silent;
}

/** By place the first finding of what is found there once a sound. */
function firstOfEach(findings: readonly Finding[]): ReadonlyMap<string, Cause> {
  const found = new Map<string, Cause>();
  for (const finding of findings) {
    if (!once.has(finding.ruleId) && !unreachable.has(finding.ruleId)) continue;
    const place = placeOf(finding);
    if (!found.has(place)) found.set(place, causeOf(finding));
  }
  return found;
}

/** What a finding says, whichever the sound. */
const placeOf = ({ ruleId, messageId, at, data: { sound: _, ...data } }: Finding): string =>
  JSON.stringify([ruleId, messageId, at.device, data]);

const causeOf = ({ ruleId, at }: Finding): Cause => ({ ruleId, at });

const isSame = (cause: Cause, { ruleId, at }: Finding): boolean => cause.ruleId === ruleId && cause.at === at;
