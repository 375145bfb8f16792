import {
  type CastAction,
  type FootPlan,
  type MistakeReport,
  type Show,
  slotPlace,
  switchLabel,
  type Wiring,
} from '@yunta/core';

/** All that can go wrong with one press: missed, or made once too often. */
export interface PressReport {
  readonly key: string;
  readonly label: string;
  readonly missed: readonly MistakeReport[];
  readonly extra: readonly MistakeReport[];
}

/**
 * What of a plan still speaks of this show: one that was made before an edit may name parts, sounds and slots that are
 * gone.
 */
export function stillThere({ rig, songbook }: Show, plan: FootPlan): FootPlan {
  const isPart = (id: string | null): boolean => id === null || Object.hasOwn(songbook.parts, id);
  const isPressed = (step: MistakeReport['press'] | CastAction): boolean =>
    !('slot' in step) || Object.hasOwn(rig.slots, step.slot);
  return {
    parts: plan.parts.filter(({ part, sound }) => isPart(part) && (sound === null || Object.hasOwn(rig.sounds, sound))),
    mistakes: plan.mistakes.filter(
      ({ press, at, wrong, heals }) => isPressed(press) && [at, ...wrong, heals].every(isPart),
    ),
    resets: plan.resets.filter(
      ({ sound, steps }) => Object.hasOwn(rig.sounds, sound) && (steps ?? []).every(isPressed),
    ),
  };
}

/** Mistakes by what is pressed, those that cost the most parts first. */
export function byPress(show: Show, wiring: Wiring, mistakes: readonly MistakeReport[]): readonly PressReport[] {
  const found = new Map<string, { label: string; missed: MistakeReport[]; extra: MistakeReport[] }>();
  for (const mistake of mistakes) {
    const { press } = mistake;
    const key = 'slot' in press ? press.slot : `${press.device} ${press.switch}`;
    let report = found.get(key);
    if (!report) {
      const label =
        'slot' in press ? slotPlace(show.rig.slots[press.slot]) : switchLabel(wiring, press.device, press.switch);
      found.set(key, (report = { label, missed: [], extra: [] }));
    }
    report[mistake.kind].push(mistake);
  }
  const cost = ({ missed, extra }: Pick<PressReport, 'missed' | 'extra'>) =>
    [...missed, ...extra].reduce((sum, { wrong }) => sum + wrong.length, 0);
  return [...found].map(([key, report]) => ({ key, ...report })).sort((a, b) => cost(b) - cost(a));
}

/** How far one mistake reaches: “to the end of the set”, “4 parts at most, then right again”. */
export function reachWords(mistakes: readonly MistakeReport[]): string {
  if (mistakes.length === 0) return 'not heard';
  const lasting = mistakes.filter(({ heals }) => heals === null).length;
  if (lasting === mistakes.length) return 'to the end of the set: nothing sets it right';
  const most = Math.max(...mistakes.map(({ wrong }) => wrong.length));
  const parts = `${most} ${most === 1 ? 'part' : 'parts'} at most`;
  return lasting === 0
    ? `${parts}, then right again`
    : `to the end of the set in ${lasting} of ${mistakes.length} places`;
}

/** Presses whose mistakes reach as far, said once. */
export function alike(
  presses: readonly PressReport[],
): readonly { readonly labels: readonly string[]; readonly missed: string; readonly extra: string }[] {
  const found = new Map<string, { readonly labels: string[]; readonly missed: string; readonly extra: string }>();
  for (const { label, missed, extra } of presses) {
    const words = {
      missed: missed.length === 0 ? 'not heard, or not pressed' : reachWords(missed),
      extra: reachWords(extra),
    };
    const key = JSON.stringify(words);
    const same = found.get(key);
    if (same) same.labels.push(label);
    else found.set(key, { labels: [label], ...words });
  }
  return [...found.values()];
}

/** “missed at Cellar Waltz, verse: 6 parts wrong, to the end” */
export function mistakeWords({ songbook }: Show, { kind, at, wrong, heals }: MistakeReport): string {
  const nameOf = (id: string): string => {
    const part = songbook.parts[id];
    return `${songbook.songs[part.song].name}, ${part.name}`;
  };
  const count = `${wrong.length} ${wrong.length === 1 ? 'part' : 'parts'} wrong`;
  const first = wrong[0] === at ? '' : ` from ${nameOf(wrong[0])} on`;
  const until = heals === null ? 'to the end of the set' : `right again at ${nameOf(heals)}`;
  return `${kind === 'missed' ? 'missed at' : 'once too often in'} ${nameOf(at)}: ${count}${first}, ${until}`;
}
