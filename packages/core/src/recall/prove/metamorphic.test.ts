import { describe, expect, test } from '@jest/globals';
import { applySteps } from '../../change/steps.ts';
import { check, contextOf } from '../../check/engine.ts';
import { rules } from '../../check/rules/index.ts';
import type { Show } from '../../model/documents.ts';
import type { Cable } from '../../model/rig.ts';
import { clean, fourCable, lead } from '../../testing/build-show.ts';
import { commands } from '../../testing/commands.ts';
import { seededShow } from '../../testing/compare.ts';
import { Random } from '../../testing/random.ts';
import type { Level } from './verdict.ts';

const levels: readonly Level[] = [1, 2, 3, 4];
const seeds = Array.from({ length: 10 }, (_, i) => 300 + i);

/** Verdicts and lengths by slot, and how often each rule speaks. */
function judged(show: Show, nameOf: (slot: string) => string = (slot) => slot) {
  const context = contextOf(show);
  const verdicts = context.prover
    .pairs()
    .flatMap(({ slot, sound }) =>
      levels.map((level) => [nameOf(slot.slot.id), level, context.prover.judge(slot, sound, level)] as const),
    );
  const { findings } = check(context, rules);
  return {
    verdicts: verdicts.map(([slot, level, one]) => `${slot} ${level} ${one.verdict} ${one.length}`).sort(),
    findings: findings.map((finding) => `${finding.ruleId} ${finding.messageId} ${finding.severity}`).sort(),
  };
}

/** Every id and every name replaced, throughout, by another. */
function renamed(show: Show): { show: Show; back: Map<string, string> } {
  const ids = new Map<string, string>();
  const collections = [
    show.rig.devices,
    show.rig.cables,
    show.rig.sounds,
    show.rig.slots,
    show.rig.casting,
    show.songbook.parts,
    show.songbook.songs,
    show.rig.outside,
  ];
  for (const collection of collections)
    for (const id of Object.keys(collection)) if (id.includes('.') && !ids.has(id)) ids.set(id, `x${ids.size}`);
  const swap = (data: unknown): unknown => {
    if (typeof data === 'string') {
      const at = data.indexOf('/');
      if (at > 0 && ids.has(data.slice(0, at))) return `${ids.get(data.slice(0, at))}${data.slice(at)}`;
      return ids.get(data) ?? data;
    }
    if (Array.isArray(data)) return data.map(swap);
    if (data === null || typeof data !== 'object') return data;
    return Object.fromEntries(
      Object.entries(data).map(([key, value]) => [
        swap(key) as string,
        key === 'name' ? `named ${String(value).length}` : key === 'params' ? value : swap(value),
      ]),
    );
  };
  return { show: swap(show) as Show, back: new Map([...ids].map(([from, to]) => [to, from])) };
}

/** Keys of every record in another order, and cables in another order: nothing of this has a meaning. */
function reordered(show: Show, r: Random): Show {
  const shuffle = <T>(record: Readonly<Record<string, T>>): Record<string, T> =>
    Object.fromEntries(
      Object.entries(record)
        .map((entry) => [r.next(), entry] as const)
        .sort(([a], [b]) => a - b)
        .map(([, entry]) => entry),
    );
  const cables = Object.fromEntries(
    Object.entries(shuffle(show.rig.cables)).map(([id, cable]) => [
      id,
      cable.kind === 'midi' ? cable : ({ ...cable, order: `a${r.below(1000)}` } satisfies Cable),
    ]),
  );
  return {
    ...show,
    rig: {
      ...show.rig,
      devices: shuffle(show.rig.devices),
      cables,
      sounds: shuffle(show.rig.sounds),
      slots: shuffle(show.rig.slots),
      casting: shuffle(show.rig.casting),
    },
  };
}

describe('what must not matter does not', () => {
  test.each(seeds)('seed %i: other names and ids, the same verdicts, lengths and findings', (seed) => {
    const show = seededShow(seed);
    const other = renamed(show);
    expect(judged(other.show, (slot) => other.back.get(slot)!)).toEqual(judged(show));
  });

  test.each(seeds)('seed %i: another order of what has none', (seed) => {
    const show = seededShow(seed);
    expect(judged(reordered(show, new Random(seed)))).toEqual(judged(show));
  });

  test.each(seeds)('seed %i: a level implies those above it, but for cues and planned feet', (seed) => {
    const { prover } = contextOf(seededShow(seed));
    const cast = Object.values(prover.model.wiring.rig.casting);
    for (const { slot, sound } of prover.pairs()) {
      if (prover.targetOf(sound).cues.size > 0 || cast.some((entry) => entry.before.length + entry.after.length > 0))
        continue;
      const verdicts = levels.map((level) => prover.judge(slot, sound, level).verdict);
      for (const [weak, strong] of [
        [1, 2],
        [2, 3],
        [2, 4],
      ] as const)
        if (verdicts[strong - 1] === 'recalls')
          expect([slot.slot.id, weak, verdicts[weak - 1]]).toEqual([
            slot.slot.id,
            weak,
            expect.stringMatching(/recalls|not-played/),
          ]);
    }
  });
});

describe('a pedal always on in the line', () => {
  const base = fourCable().sound('lead', lead).sound('clean', clean).laid().show;
  const withPedal = (plannedSwitches: readonly string[]): Show => {
    const cable = Object.values(base.rig.cables).find((cable) => cable.plugs[0].device === 'guitar')!;
    const builder = fourCableFrom(base, cable.id);
    return builder
      .device('boost', 'boost', 'Boost', { plannedSwitches })
      .cables('Guitar > Boost', 'Boost > Switcher In').show;
  };
  const verdicts = (show: Show) => {
    const { prover } = contextOf(show);
    return levels.map((level) => prover.all(level).map((judgement) => judgement.verdict));
  };

  test('that no sound wants and no foot is planned for changes no verdict at levels 1, 2 and 4', () => {
    const before = verdicts(base);
    const after = verdicts(withPedal([]));
    for (const level of [1, 2, 4]) expect(after[level - 1]).toEqual(before[level - 1]);
  });

  test('wanted on as it is, with its foot planned, does: nothing turns it on again', () => {
    const wanting = Object.keys(base.rig.sounds).reduce(
      (show, sound) => {
        const command = commands.wantPedal(show, sound, 'boost', 'on');
        const result = applySteps(show, command.steps);
        return result.ok ? result.value : show;
      },
      withPedal(['switch']),
    );
    expect(verdicts(base)[1]).toEqual(['recalls', 'recalls']);
    expect(verdicts(wanting)[1]).toEqual(['does-not', 'does-not']);
  });
});

function fourCableFrom(show: Show, without: string) {
  const result = applySteps(show, commands.disconnect(show, without).steps);
  const builder = fourCable();
  if (result.ok) builder.show = result.value;
  return builder;
}
