import { describe, expect, test } from '@jest/globals';
import { check, contextOf } from '../check/engine.ts';
import { formatFinding } from '../check/format-finding.ts';
import { rules } from '../check/rules/index.ts';
import { unjudged } from '../check/unjudged.ts';
import { inOrder, type Show } from '../model/documents.ts';
import { actionLabel } from '../model/labels.ts';
import { footPlan } from '../recall/replay/foot-plan.ts';
import { cellarBarRig, ferryRig, hallwayRig, twoLineBassRig } from './by-feet.ts';

/** What a rig must say, thought through before it was computed. In brackets: passed, and bypassed. */
interface Expected {
  readonly make: () => Show;
  readonly lines: Readonly<Record<string, string>>;
  /** By part in set order: what is done when, after power-up. */
  readonly plan: readonly string[];
  readonly findings: readonly string[];
  /** What must be looked at to be sure of a sound; null where some presses set it whatever came before. */
  readonly lookAt: Readonly<Record<string, readonly string[] | null>>;
}

const rigs: Readonly<Record<string, Expected>> = {
  'pedals pressed one by one, an amp with an echo in its loop': {
    make: cellarBarRig,
    lines: {
      Rhythm: 'Guitar > Tuner > Compressor > (Drive) > (Boost) > Combo > (Echo) > Combo > Cabinet',
      Crunch: 'Guitar > Tuner > (Compressor) > Drive > (Boost) > Combo > (Echo) > Combo > Cabinet',
      Solo: 'Guitar > Tuner > (Compressor) > (Drive) > Boost > Combo > Echo > Combo > Cabinet',
    },
    // Pedals come up on, the combo on its first channel. Between songs there is time; in a song all of it is heard.
    plan: [
      'before: Drive, Boost, Echo',
      'on: Compressor, Drive',
      'on: Drive, Boost, Combo, Echo',
      'on: Compressor, Boost, Combo, Echo',
      'before: Compressor, Drive',
      'on: Compressor, Drive',
    ],
    findings: [
      'Cellar Waltz, verse to chorus: 2 foot actions at once (Compressor, Drive).',
      'Cellar Waltz, chorus to solo: 4 foot actions at once (Drive, Boost, Combo, Echo).',
      'Cellar Waltz, solo to last verse: 4 foot actions at once (Compressor, Boost, Combo, Echo).',
      'Low Door, riff to break: 2 foot actions at once (Compressor, Drive).',
    ],
    // Every switch only turns round what is there.
    lookAt: {
      rhythm: ['comp/on', 'drive/on', 'boost/on', 'combo/channel', 'echo/on'],
      crunch: ['comp/on', 'drive/on', 'boost/on', 'combo/channel', 'echo/on'],
      solo: ['comp/on', 'drive/on', 'boost/on', 'combo/channel', 'echo/on'],
    },
  },
  'no amp, all by feet, hands at the guitar': {
    make: hallwayRig,
    lines: {
      Bright: 'Guitar > Tuner > (Drive) > Preamp > (Echo) > Preamp > Cabinet simulation > Desk',
      Warm: 'Guitar > Tuner > (Drive) > Preamp > Echo > Preamp > Cabinet simulation > Desk',
      Loud: 'Guitar > Tuner > Drive > Preamp > Echo > Preamp > Cabinet simulation > Desk',
    },
    // The guitar comes up at the bridge, its volume full.
    plan: [
      'before: Drive, Echo, Guitar volume 8',
      'on: Echo, Guitar selector neck',
      'on: Drive, Preamp, Guitar selector bridge, Guitar volume 10',
    ],
    findings: ['Stairwell, verse to end: 2 foot actions at once (Drive, Preamp).'],
    // Hands put selector and volume where they want; only what toggles must be looked at.
    lookAt: {
      bright: ['drive/on', 'preamp/channel', 'echo/on'],
      warm: ['drive/on', 'preamp/channel', 'echo/on'],
      loud: ['drive/on', 'preamp/channel', 'echo/on'],
    },
  },
  'a floor unit that steps through its presets by its own switches': {
    make: ferryRig,
    lines: {
      Clear: 'Guitar > Floor unit > Desk',
      Edge: 'Guitar > Floor unit > Desk',
      'Wall, boosted': 'Guitar > Floor unit > Desk',
    },
    // Up and down go round: from 1 to 3 either takes two, and down comes first on the unit; from 3 to 0 up takes one.
    plan: [
      '',
      'on: Floor unit: Preset up',
      'on: Floor unit: Preset down, Floor unit: Preset down, Floor unit: Boost',
      'on: Floor unit: Preset up, Floor unit: Boost',
    ],
    findings: [
      'Ferry Bell, chorus to end: 3 foot actions at once (Floor unit: Preset down twice, Floor unit: Boost).',
      'Ferry Bell, end to bow: 2 foot actions at once (Floor unit: Preset up, Floor unit: Boost).',
    ],
    lookAt: {
      clear: ['unit/preset', 'unit/boost'],
      edge: ['unit/preset', 'unit/boost'],
      wall: ['unit/preset', 'unit/boost'],
    },
  },
  'a bass on two lines that are always on': {
    make: twoLineBassRig,
    lines: { 'Both lines': 'Bass > Bass amp > Grit > Cabinet > Desk' },
    plan: ['', ''],
    findings: [],
    // Nothing can be wrong, so nothing needs to be done.
    lookAt: { both: null },
  },
};

describe.each(Object.entries(rigs))('%s', (_, { make, lines, plan, findings, lookAt }) => {
  const show = make();
  const context = contextOf(show);
  const { wiring, tracer, prover } = context;
  const found = footPlan(prover)!;

  test('the line of each sound', () => {
    const traced = inOrder(show.rig.sounds).map((sound) => [
      sound.name,
      tracer
        .trace(sound)
        .passes.map(({ device, bypassed }) => {
          const { name } = wiring.device.get(device)!.device;
          return bypassed ? `(${name})` : name;
        })
        .join(' > '),
    ]);
    expect(Object.fromEntries(traced)).toEqual(lines);
  });

  test('what is found, and that nothing is left unjudged', () => {
    const checked = check(context, rules);
    expect(checked.broken).toEqual([]);
    expect(checked.findings.map((finding) => formatFinding(finding, rules).trim())).toEqual(findings);
    expect(unjudged(show, wiring)).toEqual([]);
  });

  test('what feet and hands do, and that every part comes up right', () => {
    const done = found.parts.map(({ steps }) =>
      (['before', 'on', 'after'] as const)
        .flatMap((when) => {
          const labels = steps.flatMap((step) => (step.when === when ? [actionLabel(wiring, step.action!)] : []));
          return labels.length > 0 ? [`${when}: ${labels.join(', ')}`] : [];
        })
        .join('; '),
    );
    expect(done).toEqual(plan);
    expect(new Set(found.parts.map(({ judgement }) => judgement?.verdict))).toEqual(new Set(['recalls']));
  });

  test('what sets each sound whatever came before', () => {
    const told = found.resets.map(({ sound, steps, lookAt: at }) => [sound, steps ? null : at]);
    expect(Object.fromEntries(told)).toEqual(lookAt);
  });
});
