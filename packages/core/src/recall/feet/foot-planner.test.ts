import { describe, expect, test } from '@jest/globals';
import { addPart, addSong, playsSound, setParam } from '../../change/commands.ts';
import { actionLabel } from '../../model/labels.ts';
import { ShowBuilder } from '../../testing/build-show.ts';
import { compareSeed, firstByFeet, firstOfPages } from '../../testing/compare.ts';
import { adaptCase, type CaseRig } from '../../testing/recall-adapter.ts';
import type { Prover } from '../prove/prover.ts';
import { proverOf } from '../prove/prover-of.ts';

/** Pedals in line, each with a switch; what else is given. */
const pedals = (names: readonly string[], more: Partial<CaseRig> & Pick<CaseRig, 'sounds' | 'set'>): CaseRig => ({
  devices: {
    ...Object.fromEntries(
      names.map((name) => [
        name,
        { controls: { on: { domain: [0, 1], powerup: 0 } }, foot: { f: { does: [{ toggle: 'on' }] } } },
      ]),
    ),
    ...more.devices,
  },
  topology: {
    sources: ['n0'],
    dests: [`n${names.length}`],
    edges: names.flatMap((name, i) => [
      { id: name, from: `n${i}`, to: `n${i + 1}`, when: { [`${name}.on`]: 1 } },
      { id: `past ${name}`, from: `n${i}`, to: `n${i + 1}`, when: { [`${name}.on`]: 0 }, wire: true },
    ]),
  },
  sounds: more.sounds,
  set: more.set,
});

const planOf = (rig: CaseRig): readonly string[] => footPlanOf(proverOf(adaptCase(rig).show));

/** By part: what is done, `before|on|after`; or why nothing is. */
function footPlanOf({ model, set }: Prover): readonly string[] {
  return set.parts.map(({ events, failed }) => {
    if (failed)
      return failed.is === 'unknown'
        ? 'unknown'
        : `stuck: ${failed.controls.map((v) => model.variables[v].part).join()}`;
    return (['before', 'on', 'after'] as const)
      .map((when) =>
        events
          .flatMap((event) => (event.when === when && event.action ? [actionLabel(model.wiring, event.action)] : []))
          .join(', '),
      )
      .join(' | ');
  });
}

test('a switch that is another loop on another page: the page is turned over where it must be, and not before', () => {
  const rig = new ShowBuilder()
    .text('guitar > switcher = loop switcher, 4 loops')
    .text('switcher 1: drive; 3: echo = delay\nswitcher > amp = valve amp one > cabinet')
    .sound('dry', { pedals: { drive: 'off', echo: 'off' } })
    .sound('hot', { pedals: { drive: 'on', echo: 'off' } })
    .sound('wide', { pedals: { drive: 'on', echo: 'on' } });
  for (const [name, value] of Object.entries({ directSwitches: true, directAPage: 2 }))
    rig.do(setParam(rig.show, 'switcher', name, value));
  rig.do(addSong(rig.show, 'song', 'Song'));
  for (const [i, sound] of ['dry', 'hot', 'wide', 'hot', 'dry'].entries())
    rig.do(addPart(rig.show, `part-${i}`, 'song', sound, playsSound(rig.show.rig, sound)));
  const first = 'Switcher: Loop 1 or 3 directly, by page';
  const turn = 'Switcher: Next page of the loop switches';
  expect(footPlanOf(proverOf(rig.show))).toEqual([
    ' |  | ',
    ` | ${first} | `,
    // Turned over in time: nobody hears that.
    `${turn} | ${first} | `,
    ` | ${first} | `,
    ' | Drive | ',
  ]);
});

describe('by hand', () => {
  const sounds = {
    both: { wants: { 'A.on': 1, 'B.on': 1 } },
    first: { wants: { 'A.on': 1, 'B.on': 0 } },
    none: { wants: { 'A.on': 0, 'B.on': 0 } },
  };
  test('the fewest presses, from where the part before has led', () => {
    const set = [{ sound: 'first' }, { sound: 'both' }, { sound: 'both' }, { sound: 'none' }];
    expect(planOf(pedals(['A', 'B'], { sounds, set }))).toEqual(['A |  | ', ' | B | ', ' |  | ', ' | A, B | ']);
  });
  test('a written step stays, and the rest is found around it: one before, one that is undone after', () => {
    const foot = [['foot', 'B', 'f']];
    expect(planOf(pedals(['A', 'B'], { sounds, set: [{ sound: 'both', before: foot }] }))).toEqual(['B, A |  | ']);
    // B goes on after the bar line, so it must be left alone before it.
    expect(planOf(pedals(['A', 'B'], { sounds, set: [{ sound: 'both', after: foot }] }))).toEqual(['A |  | B']);
    expect(planOf(pedals(['A', 'B'], { sounds, set: [{ sound: 'first', after: foot }] }))).toEqual(['A, B |  | B']);
  });
  test('what the part before does not hear is done before the bar line', () => {
    // C lies in the loop of A: while A is out, C can be pressed unheard.
    const rig: CaseRig = {
      ...pedals(['A', 'C'], {
        sounds: { dry: { wants: { 'A.on': 0 } }, wet: { wants: { 'A.on': 1, 'C.on': 1 } } },
        set: [{ sound: 'dry' }, { sound: 'wet' }],
      }),
      topology: {
        sources: ['in'],
        dests: ['out'],
        edges: [
          { id: 'past', from: 'in', to: 'out', when: { 'A.on': 0 }, wire: true },
          { id: 'A', from: 'in', to: 'mid', when: { 'A.on': 1 } },
          { id: 'C', from: 'mid', to: 'out', when: { 'C.on': 1 } },
          { id: 'past C', from: 'mid', to: 'out', when: { 'C.on': 0 }, wire: true },
        ],
      },
    };
    expect(planOf(rig)).toEqual([' |  | ', 'C | A | ']);
  });
  test('what comes up as it was left is seen to, once', () => {
    const left = {
      controls: { on: { domain: [0, 1], powerup: 'as left' } },
      foot: { f: { does: [{ toggle: 'on' }] } },
    };
    const rig = pedals(['A', 'B'], { devices: { A: left }, sounds, set: [{ sound: 'first' }, { sound: 'none' }] });
    expect(planOf(rig)).toEqual(['A on 1 |  | ', ' | A | ']);
  });
  test('which preset is there at power-up is left open: what it stores comes up with it, and is not seen to apart', () => {
    const unit = {
      presets: { stored: { 1: { mix: 50 }, 2: { mix: 90 } }, powerup: 'any' },
      controls: { mix: { domain: [50, 90], scope: 'preset' as const } },
      foot: { f: { does: [{ next: 'mix', wrap: false }] } },
    };
    const rig: CaseRig = {
      ...pedals(['A'], { sounds: { far: { wants: { 'A.on': 1, 'U.mix': 90 } } }, set: [{ sound: 'far' }] }),
      topology: {
        sources: ['n0'],
        dests: ['n2'],
        edges: [
          { id: 'A', from: 'n0', to: 'n1', when: { 'A.on': 1 } },
          { id: 'past A', from: 'n0', to: 'n1', when: { 'A.on': 0 }, wire: true },
          { id: 'U', from: 'n1', to: 'n2', gov: ['U.mix'], when: { 'U.preset': 2 } },
          { id: 'past U', from: 'n1', to: 'n2', when: { 'U.preset': 1 }, wire: true },
        ],
      },
    };
    expect(planOf({ ...rig, devices: { ...rig.devices, U: unit } })).toEqual(['A |  | ']);
  });
  test('what nothing moves is named; what is not heard need not move', () => {
    const fixed = { controls: { on: { domain: [0, 1], powerup: 0 } } };
    expect(
      planOf(pedals(['A', 'B'], { devices: { B: fixed }, sounds, set: [{ sound: 'both' }, { sound: 'first' }] })),
    ).toEqual(['stuck: on', ' | A | ']);
  });
  test('a hand moves what the player holds; a foot is preferred where both take one', () => {
    const knob = { controls: { on: { domain: [0, 1], powerup: 0, owner: 'hand' as const } } };
    expect(planOf(pedals(['A', 'B'], { devices: { A: knob }, sounds, set: [{ sound: 'both' }] }))).toEqual([
      'B, A on 1 |  | ',
    ]);
  });
  test('a switch that moves two at once is pressed once, or twice with what sets the other right', () => {
    const devices = {
      A: {
        controls: { on: { domain: [0, 1], powerup: 0 }, hum: { domain: [0, 1], powerup: 0 } },
        foot: { two: { does: [{ toggle: 'on' }, { toggle: 'hum' }] }, one: { does: [{ toggle: 'hum' }] } },
      },
    };
    const rig = pedals(['A', 'B'], {
      devices,
      sounds: { x: { wants: { 'A.on': 1, 'A.hum': 1 } }, y: { wants: { 'A.on': 1, 'A.hum': 0 } } },
      set: [{ sound: 'x' }, { sound: 'y' }],
    });
    const heard: CaseRig = {
      ...rig,
      topology: {
        ...rig.topology,
        edges: rig.topology.edges.map((edge) => (edge.id === 'A' ? { ...edge, gov: ['A.hum'] } : edge)),
      },
    };
    expect(planOf(heard)).toEqual(['A: two |  | ', ' | A: one | ']);
  });
});

test('equal to trying every sequence, on random rigs whose parts feet, hands and slots play', () => {
  const wrong: unknown[] = [];
  let compared = 0;
  for (const first of [firstByFeet, firstOfPages])
    for (let seed = first, left = 12; left > 0; seed += 1) {
      const found = compareSeed(seed, 120);
      if (!found) continue;
      left -= 1;
      compared += 1;
      wrong.push(...found.disagreements);
    }
  expect(compared).toBe(24);
  expect(wrong).toEqual([]);
});
