import { describe, expect, test } from '@jest/globals';
import { applySteps } from '../change/steps.ts';
import { check, contextOf } from '../check/engine.ts';
import { noRoute } from '../check/rules/routing/no-route.ts';
import { demoShow } from '../demo/demo.ts';
import { clean, fourCable, lead } from '../testing/build-show.ts';
import { Random } from '../testing/random.ts';
import { variantBy } from '../variants/edit.ts';
import { variantOf } from '../variants/view.ts';
import { candidates, leaveAtHome, losses, neededBy, whatCanStayAtHome } from './at-home.ts';
import { homeCurve, type HomePiece } from './curve.ts';

test('for every number of pieces the fewest songs are lost, and most is saved: the same as every choice', () => {
  for (let seed = 1; seed <= 80; seed += 1) {
    const r = new Random(seed);
    const songs = 1 + r.below(8);
    const pieces = Array.from({ length: 1 + r.below(7) }, (_, i): HomePiece => ({
      id: `p${i}`,
      songs: Array.from({ length: songs }, (_s, song) => song).filter(() => r.chance(0.4)),
      saves: r.below(20),
    }));
    const curve = homeCurve(pieces, songs);
    expect(curve).toHaveLength(pieces.length + 1);
    curve.forEach(({ left, lost, isProved }, k) => {
      let [fewest, most] = [Infinity, -1];
      for (let mask = 0; mask < 1 << pieces.length; mask += 1) {
        const chosen = pieces.filter((_, i) => mask & (1 << i));
        if (chosen.length !== k) continue;
        const cost = new Set(chosen.flatMap((piece) => piece.songs)).size;
        const saves = chosen.reduce((sum, piece) => sum + piece.saves, 0);
        if (cost < fewest || (cost === fewest && saves > most)) [fewest, most] = [cost, saves];
      }
      const saved = pieces.filter(({ id }) => left.includes(id)).reduce((sum, piece) => sum + piece.saves, 0);
      expect({ seed, k, count: left.length, lost: lost.length, saved, isProved }).toEqual({
        seed,
        k,
        count: k,
        lost: fewest,
        saved: most,
        isProved: true,
      });
    });
  }
});

test('too many to look into: piece by piece, never called proved where a song is lost, never losing fewer with more', () => {
  const r = new Random(5);
  const pieces = Array.from({ length: 30 }, (_, i): HomePiece => ({
    id: `p${i}`,
    songs: Array.from({ length: 40 }, (_s, song) => song).filter(() => r.chance(0.3)),
    saves: i,
  }));
  const curve = homeCurve(pieces, 40);
  expect(curve).toHaveLength(31);
  for (let k = 1; k < curve.length; k += 1) {
    expect(curve[k].lost.length).toBeGreaterThanOrEqual(curve[k - 1].lost.length);
    if (curve[k].lost.length > 0) expect(curve[k].isProved).toBe(false);
  }
});

describe('a rig', () => {
  const show = () => fourCable().sound('lead', lead).sound('clean', clean).laid().show;
  test('what might stay at home is what the signal passes', () => {
    expect(candidates(show()).map(({ id }) => id)).toEqual(['drive', 'combo', 'delay']);
  });
  test('a sound needs what it wants on, not what it wants off', () => {
    expect([...neededBy(show().rig.sounds.clean)]).toEqual(['combo']);
    expect([...neededBy(show().rig.sounds.lead)].sort()).toEqual(['combo', 'delay', 'drive']);
  });
  test('the curve falls in weight as pieces go, and says which songs are lost', () => {
    const curve = whatCanStayAtHome(demoShow());
    expect(curve[0]).toMatchObject({ left: [], songs: [] });
    for (let k = 1; k < curve.length; k += 1) {
      expect(curve[k].figures.pieces).toBe(curve[0].figures.pieces - k);
      expect(curve[k].figures.grams).toBeLessThanOrEqual(curve[0].figures.grams);
      expect(curve[k].songs.length).toBeGreaterThanOrEqual(curve[k - 1].songs.length);
    }
    // The tuner is asked for by no sound.
    expect(curve[1]).toMatchObject({ left: ['tuner'], songs: [] });
  });
  test('what each sound loses', () => {
    expect(losses(show(), ['drive']).map(({ sound, pieces }) => [sound.id, pieces])).toEqual([['lead', ['drive']]]);
  });
  test('left at home, the line goes on without it; as a variant the rig itself stays', () => {
    const base = demoShow();
    const command = leaveAtHome(base, ['tuner'])!;
    const next = applySteps(base, command.steps);
    expect(next.ok && next.value.rig.devices.tuner).toBeUndefined();
    if (!next.ok) return;
    // The guitar goes into the switcher.
    expect(
      Object.values(next.value.rig.cables).some(
        ({ plugs }) => plugs.map(({ device }) => device).join() === 'guitar,switcher',
      ),
    ).toBe(true);
    expect(check(contextOf(next.value), [noRoute]).findings).toEqual([]);
    const made = variantBy(base, 'light', 'Without the tuner', command)!;
    const withVariant = applySteps(base, made.steps);
    expect(withVariant.ok && variantOf(withVariant.value, 'light').show.rig.devices.tuner).toBeUndefined();
    expect(withVariant.ok && withVariant.value.rig.devices.tuner).toBeDefined();
  });
  test('nothing left is nothing done', () => expect(leaveAtHome(show(), [])).toBeNull());
});
