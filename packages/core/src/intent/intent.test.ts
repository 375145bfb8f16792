import { describe, expect, test } from '@jest/globals';
import { allocateNow } from '../allocate/allocate.ts';
import { costOf, isAllowed, judgePlan } from '../allocate/judge-plan.ts';
import { compareCosts, type Plan } from '../allocate/plan.ts';
import { compileProblem, out } from '../allocate/problem.ts';
import { setParam, setSetting } from '../change/commands.ts';
import { tolerate, wantBefore, wantPlace, wantSwitchedBy } from '../change/intent.ts';
import { applySteps } from '../change/steps.ts';
import { contextOf } from '../check/engine.ts';
import type { Show } from '../model/documents.ts';
import { plugLabel } from '../model/labels.ts';
import type { Sound } from '../model/rig.ts';
import { buildWiring } from '../model/wiring.ts';
import { starterById, starters } from '../starters/starters.ts';
import { ShowBuilder } from '../testing/build-show.ts';
import { Random } from '../testing/random.ts';
import { allocationOf, type Changed, planAsWired } from './allocation-of.ts';
import { type Line, lineOf } from './line.ts';
import {
  lostWords,
  otherPlaces,
  placeWords,
  type PlannedLine,
  pressWords,
  switchedByWords,
  whyThere,
} from './plan-words.ts';
import { patchChange, writePatch } from './write-patch.ts';

function lineIn(show: Show): Line {
  const line = lineOf(buildWiring(show.rig));
  if (typeof line === 'string') throw new Error(line);
  return line;
}

function planned(show: Show, changed: Changed = {}): PlannedLine {
  const line = lineIn(show);
  const compiled = compileProblem(allocationOf(show, line, changed));
  if (!compiled.ok) throw new Error(JSON.stringify(compiled.problems));
  const { best } = allocateNow(compiled.value);
  if (!best) throw new Error('no plan is allowed');
  return { show, line, compiled: compiled.value, plan: best };
}

function wired({ show, line, compiled, plan }: PlannedLine): Show {
  const command = writePatch(show, line, compiled, plan);
  if (!command) return show;
  const result = applySteps(show, command.steps);
  if (!result.ok) throw new Error(JSON.stringify(result.problems));
  return result.value;
}

const patchOf = (show: Show): readonly string[] => {
  const wiring = buildWiring(show.rig);
  return Object.values(show.rig.cables).map(({ plugs }) => plugs.map((plug) => plugLabel(wiring, plug)).join(' > '));
};
const placesIn = (it: PlannedLine): Record<string, string> =>
  Object.fromEntries(
    it.line.pieces.map(({ name }, i) => [name, `${placeWords(it, i)} ${switchedByWords(it, i)}`.trim()]),
  );
const verdicts = (show: Show) =>
  contextOf(show)
    .prover.all(2)
    .map(({ verdict }) => verdict);

const pedals = ['compressor', 'drive', 'boost', 'chorus', 'delay', 'reverb'];
const sound = (on: readonly string[], wants: Sound['wants'] = {}): Partial<Sound> => ({
  pedals: Object.fromEntries(pedals.map((pedal) => [pedal, on.includes(pedal) ? 'on' : 'off'])),
  wants,
});

/** What somebody has, a line a piece, and three sounds; no cable. */
const bare = (switcher: string, amp = 'amp = valve combo', channels = true): ShowBuilder =>
  new ShowBuilder()
    .text(`guitar\ntuner\ncompressor\ndrive\nboost\nchorus\ndelay = delay midi\nreverb = reverb midi`)
    .text(`${amp}\ncabinet\nswitcher = ${switcher}`)
    .sound('clean', {
      name: 'Clean',
      ...sound(['compressor', 'chorus', 'reverb'], {
        ...(channels ? { 'amp/channel': 'clean' } : {}),
        'reverb/preset': 1,
      }),
    })
    .sound('rhythm', { name: 'Rhythm', ...sound(['drive'], channels ? { 'amp/channel': 'lead' } : {}) })
    .sound('solo', {
      name: 'Solo',
      ...sound(['drive', 'boost', 'delay'], { ...(channels ? { 'amp/channel': 'lead' } : {}), 'delay/preset': 3 }),
    });

describe('from a list of pieces and a filled matrix, no cable typed', () => {
  test('the amp in a loop of a switcher without an insert: four cables, and everything recalls', () => {
    const it = planned(bare('loop switcher, 8 loops').show);
    expect(placesIn(it)).toEqual({
      Tuner: 'in front never off',
      Compressor: 'loop 1 by the loop',
      Drive: 'loop 2 by the loop',
      Boost: 'loop 3 by the loop',
      Amp: 'loop 4 by the loop',
      Chorus: 'loop 5 by the loop',
      Delay: 'loop 6 by the loop',
      Reverb: 'loop 7 by the loop',
    });
    const show = wired(it);
    expect(patchOf(show)).toEqual([
      'Guitar, Out > Tuner, In',
      'Tuner, Out > Switcher, In',
      'Switcher, Send 1 > Compressor, In',
      'Compressor, Out > Switcher, Return 1',
      'Switcher, Send 2 > Drive, In',
      'Drive, Out > Switcher, Return 2',
      'Switcher, Send 3 > Boost, In',
      'Boost, Out > Switcher, Return 3',
      'Switcher, Send 4 > Amp, Input',
      'Amp, Send > Switcher, Return 4',
      'Switcher, Send 5 > Chorus, In',
      'Chorus, Out > Switcher, Return 5',
      'Switcher, Send 6 > Delay, In',
      'Delay, Out > Switcher, Return 6',
      'Switcher, Send 7 > Reverb, In',
      'Reverb, Out > Switcher, Return 7',
      'Switcher, Out > Amp, Return',
      'Amp, Loudspeaker > Cabinet, In',
      'Switcher, MIDI out > Delay, MIDI in',
      'Delay, MIDI through > Reverb, MIDI in',
      'Switcher, Contact 1 > Amp, Remote 1',
    ]);
    expect(verdicts(show)).toEqual(['recalls', 'recalls', 'recalls']);
  });

  test('the amp in the insert where there is one, its loop wired through; loops before and behind', () => {
    const rig = bare('loop switcher, 8 loops');
    rig.do(setParam(rig.show, 'switcher', 'insertAfter', 3));
    const it = planned(rig.show);
    expect(placesIn(it)).toMatchObject({
      Amp: 'insert never off',
      Boost: 'loop 3 by the loop',
      Chorus: 'loop 4 by the loop',
    });
    const show = wired(it);
    expect(patchOf(show)).toEqual(
      expect.arrayContaining([
        'Switcher, Insert send > Amp, Input',
        'Amp, Send > Switcher, Insert return',
        'Switcher, Out > Amp, Return',
      ]),
    );
    expect(verdicts(show)).toEqual(['recalls', 'recalls', 'recalls']);
  });

  test('pieces behind the loops stand in the amp’s own loop where that is wanted, by their messages', () => {
    const rig = bare('loop switcher, 4 loops');
    rig.do(wantPlace(rig.show, 'amp', 'after'));
    for (const piece of ['delay', 'reverb']) rig.do(wantPlace(rig.show, piece, 'after'));
    const it = planned(rig.show);
    expect(placesIn(it)).toMatchObject({
      Amp: 'after the loops never off',
      Delay: 'the amp’s loop by the slot itself',
    });
    expect(patchOf(wired(it))).toEqual(
      expect.arrayContaining([
        'Switcher, Out > Amp, Input',
        'Amp, Send > Chorus, In',
        'Chorus, Out > Delay, In',
        'Delay, Out > Reverb, In',
        'Reverb, Out > Amp, Return',
      ]),
    );
    // It comes up on, as Clean wants it.
    expect(pressWords(it)).toEqual(['Chorus off for Rhythm']);
  });

  test('no amp at all: the line ends at the desk', () => {
    const rig = bare('loop switcher, 8 loops', 'simulation = cabinet simulation\ndesk', false);
    const patch = patchOf(wired(planned(rig.show)));
    expect(patch).toEqual(expect.arrayContaining(['Switcher, Out > Simulation, In', 'Simulation, Out > Desk, In']));
  });

  test('two amps behind an A/B/Y box: the line ends there, and the box goes on as it is wired', () => {
    const rig = bare(
      'loop switcher, 8 loops',
      'amp = valve amp one\nother = valve amp one\nbox = a/b/y box',
      false,
    ).text('box a > amp input; box b > other input\namp loudspeaker > cabinet; other loudspeaker > second = cabinet');
    const show = wired(planned(rig.show));
    expect(patchOf(show)).toEqual(
      expect.arrayContaining(['Switcher, Out > Box, In', 'Box, Out A > Amp, Input', 'Box, Out B > Other, Input']),
    );
    expect(contextOf(show).tracer.trace(show.rig.sounds.solo).sounds).toBe(true);
  });

  test('two amps and a box that are not wired: the box parts the line, each amp has a cabinet', () => {
    const rig = bare(
      'loop switcher, 8 loops',
      'amp = valve amp one\nother = valve amp one\nbox = a/b/y box\nsecond = cabinet',
      false,
    );
    expect(patchOf(wired(planned(rig.show)))).toEqual(
      expect.arrayContaining([
        'Switcher, Out > Box, In',
        'Box, Out A > Amp, Input',
        'Box, Out B > Other, Input',
        'Amp, Loudspeaker > Second, In',
        'Other, Loudspeaker > Cabinet, In',
      ]),
    );
  });

  test('two amps alone: left and right where the line comes there in two, else the first of them', () => {
    const rig = bare(
      'loop switcher, 8 loops',
      'amp = valve amp one\nother = valve amp one\nsecond = cabinet',
      false,
    ).text('wide = reverb stereo');
    expect(patchOf(wired(planned(rig.show)))).toEqual(expect.arrayContaining(['Switcher, Out > Amp, Input']));
    rig.do(wantPlace(rig.show, 'wide', 'after'));
    const patch = patchOf(wired(planned(rig.show)));
    expect(patch.filter((cable) => /^Wide, .* > (Amp|Other), Input$/.test(cable))).toHaveLength(2);
  });

  test('wet and dry: a tap in the loudspeaker line feeds delay and reverb, which end in an amp of their own', () => {
    const rig = bare(
      'loop switcher, 8 loops',
      'amp = valve amp one\ntap = loudspeaker tap box\nwet = power amp\nsecond = cabinet',
      false,
    );
    const show = wired(planned(rig.show));
    const patch = patchOf(show);
    expect(patch).toEqual(
      expect.arrayContaining([
        'Amp, Loudspeaker > Tap, Amp in',
        'Tap, Loudspeaker through > Second, In',
        'Tap, Line out > Delay, In',
        'Delay, Out > Reverb, In',
        'Reverb, Out > Wet, In',
        'Wet, Loudspeaker > Cabinet, In',
      ]),
    );
    // Read again it is the same, and stays.
    const again = planned(show);
    expect(again.line.wet!.pieces.map(({ name }) => name)).toEqual(['Delay', 'Reverb']);
    expect(writePatch(show, again.line, again.compiled, again.plan)).toBeNull();
    const order = again.line.wet!.pieces.map(({ id }) => id as string);
    const turned = applySteps(
      show,
      wantBefore(show, [...again.line.pieces.map(({ id }) => id as string), ...order], 'reverb', 'delay').steps,
    );
    if (!turned.ok) throw new Error();
    expect(patchOf(wired(planned(turned.value)))).toEqual(
      expect.arrayContaining(['Tap, Line out > Reverb, In', 'Reverb, Out > Delay, In', 'Delay, Out > Wet, In']),
    );
  });

  test('stereo as far as both ends are, and mono where tonight is', () => {
    const stereo = starterById('stereo-amps').make('rig', 'Rig');
    const before = patchOf(stereo);
    const again = planned(stereo);
    expect(patchOf(wired({ ...again, plan: planAsWired(again.line, again.compiled.source) }))).toEqual(before);
    const mono = applySteps(stereo, setSetting(stereo, 'width', 'mono').steps);
    if (!mono.ok) throw new Error();
    const narrow = patchOf(wired(planned(mono.value)));
    expect(narrow.filter((cable) => /^Switcher, Send \d right|return \d right/i.test(cable))).toEqual([]);
  });
});

test('whatever stands in a starter: today is a plan that changes no plug, and no better than the best', () => {
  const told: Record<string, unknown> = {};
  let compared = 0;
  for (const { id, make } of starters) {
    const show = make('rig', 'Rig');
    const line = lineOf(buildWiring(show.rig));
    if (typeof line === 'string') continue;
    const compiled = compileProblem(allocationOf(show, line));
    if (!compiled.ok) throw new Error(JSON.stringify(compiled.problems));
    const today = planAsWired(line, compiled.value.source);
    const { plugs } = patchChange(show, line, compiled.value, today);
    if (plugs > 0) told[id] = plugs;
    const { cost } = allocateNow(compiled.value);
    const isAllowedToday = today.zones.every((zone, p) => isAllowed(compiled.value, p, zone, today.by[p]));
    if (isAllowedToday) expect(compareCosts(cost!, costOf(compiled.value, today)!)).toBeLessThanOrEqual(0);
    compared += 1;
  }
  // A two-channel effect in two loops, and a loop in a loop, are more than one line: the page says what would go.
  expect(told).toEqual({ 'effect-twice': 4, 'loop-in-loop': 5 });
  expect(compared).toBeGreaterThan(15);
});

describe('what is wanted', () => {
  test('is held: a place, a loop, the order, what switches a piece', () => {
    const rig = bare('loop switcher, 8 loops');
    rig
      .do(wantPlace(rig.show, 'drive', 5))
      .do(wantPlace(rig.show, 'boost', 'left out'))
      .do(wantSwitchedBy(rig.show, 'delay', ['message']));
    const it = planned(rig.show);
    expect(placesIn(it)).toMatchObject({
      Drive: 'loop 5 by the loop',
      Boost: 'left at home',
      Delay: expect.stringMatching(/by the slot itself$/) as unknown,
    });
    expect(judgePlan(it.compiled, it.plan)!.lost.map((why) => why && lostWords(it, why))).toEqual([
      null,
      null,
      'Boost is left at home.',
    ]);
    const order = it.line.pieces.map(({ id }) => id);
    rig.do(wantBefore(rig.show, order, 'boost', 'drive'));
    expect(
      lineIn(rig.show)
        .pieces.map(({ id }) => id)
        .slice(1, 4),
    ).toEqual(['compressor', 'boost', 'drive']);
    rig.do(wantPlace(rig.show, 'drive', undefined));
    expect(lineIn(rig.show).pieces.find(({ id }) => id === 'drive')!.guessed).toEqual({ place: true, means: true });
  });
  test('a piece that is never off stands in line; one that stays as it is wired is none of the plan’s', () => {
    const rig = bare('loop switcher, 8 loops');
    rig.do(wantSwitchedBy(rig.show, 'compressor', []));
    expect(placesIn(planned(rig.show)).Compressor).toBe('in front never off');
    rig.do(wantPlace(rig.show, 'compressor', 'kept'));
    const { pieces, kept } = lineIn(rig.show);
    expect(pieces.map(({ id }) => id)).not.toContain('compressor');
    expect(kept.map(({ id }) => id)).toEqual(['compressor']);
  });
  test('a piece that stays as it is wired keeps its loop, which is not given out, or its place in line', () => {
    const rig = bare('loop switcher, 8 loops');
    const first = wired(planned(rig.show));
    const keeping = (device: string) => {
      const kept = applySteps(first, wantPlace(first, device, 'kept').steps);
      if (!kept.ok) throw new Error();
      return planned(kept.value);
    };
    const drive = keeping('drive');
    expect(drive.line).toMatchObject({ taken: [2], kept: [{ id: 'drive' }] });
    expect(drive.plan.zones).not.toContain(2);
    expect(patchOf(wired(drive))).toEqual(
      expect.arrayContaining(['Switcher, Send 2 > Drive, In', 'Drive, Out > Switcher, Return 2']),
    );
    expect(placesIn(keeping('tuner')).Tuner).toBe('in front never off');
  });
  test('why a piece is where it is, and what every other place would cost', () => {
    const rig = bare('loop switcher, 4 loops');
    rig.do(tolerate(rig.show, 'rhythm', 'boost', true));
    rig.do(wantPlace(rig.show, 'amp', 'kept'));
    const it = planned(rig.show);
    const why = Object.fromEntries(it.line.pieces.map(({ name }, i) => [name, whyThere(it, i)]));
    expect(why.Tuner).toBe('Nothing switches it, so that it stands in line for good.');
    expect(Object.values(why)).toEqual(
      expect.arrayContaining([expect.stringMatching(/^A loop of its own: in for \d sounds?\.$/)]),
    );
    for (const [i] of it.line.pieces.entries())
      for (const { cost, plan } of otherPlaces(it, i)) {
        expect(judgePlan({ ...it.compiled, pinnedZone: it.compiled.pinnedZone.map(() => -2) }, plan)!.cost).toEqual(
          cost,
        );
        expect(plan.zones).not.toEqual(it.plan.zones);
      }
    const compressor = it.line.pieces.findIndex(({ id }) => id === 'compressor');
    expect(otherPlaces(it, compressor).map(({ where }) => where)).toEqual(
      expect.arrayContaining(['in front', 'after the loops', 'left at home']),
    );
  });
});

test('no switcher, no instrument, nothing to play to: said, and nothing planned', () => {
  const without = (text: string) => lineOf(buildWiring(new ShowBuilder().text(text).show.rig));
  expect(without('guitar\ndrive\ndesk')).toBe('no-switcher');
  expect(without('drive\nswitcher = loop switcher, 4 loops\ndesk')).toBe('no-source');
  expect(without('guitar\ndrive\nswitcher = loop switcher, 4 loops')).toBe('no-end');
});

test('over what is there: cables that stay keep their names, one end is moved where the other stays, nothing is done twice', () => {
  const rig = bare('loop switcher, 8 loops');
  const first = wired(planned(rig.show));
  const again = planned(first);
  expect(writePatch(first, again.line, again.compiled, again.plan)).toBeNull();
  // Drive and boost change loops: each has two cables, of which the switcher's ends stay.
  const { pieces } = again.line;
  const [drive, boost] = ['drive', 'boost'].map((id) => pieces.findIndex((piece) => piece.id === id));
  const swapped: Plan = {
    ...again.plan,
    zones: again.plan.zones.map((zone, p) =>
      p === drive ? again.plan.zones[boost] : p === boost ? again.plan.zones[drive] : zone,
    ),
  };
  const change = patchChange(first, again.line, again.compiled, swapped);
  expect(change).toMatchObject({ plugs: 4, gone: [], added: [] });
  const second = wired({ ...again, plan: swapped });
  expect(Object.keys(second.rig.cables)).toEqual(Object.keys(first.rig.cables));
  expect(patchOf(second)).toEqual(
    expect.arrayContaining(['Switcher, Send 2 > Boost, In', 'Boost, Out > Switcher, Return 2']),
  );
});

test('law: what is written is the plan again when it is read, plays what the plan plays, in the wanted order', () => {
  let [compared, played] = [0, 0];
  const wrong: unknown[] = [];
  const kinds = [
    'compressor',
    'wah',
    'drive',
    'boost',
    'equaliser',
    'chorus',
    'tremolo',
    'delay midi',
    'reverb midi',
    'octave',
  ];
  for (let seed = 1; seed <= 40; seed += 1) {
    const r = new Random(seed);
    const names = kinds.filter(() => r.chance(0.65)).map((kind) => ({ id: kind.split(' ')[0], kind }));
    const rig = new ShowBuilder().text(`guitar\namp = ${r.chance(0.5) ? 'valve combo' : 'valve amp one'}\ncabinet`);
    rig.text(`switcher = loop switcher, ${r.pick([4, 8])} loops`);
    if (r.chance(0.5)) rig.do(setParam(rig.show, 'switcher', 'insertAfter', r.below(4)));
    else rig.do(setParam(rig.show, 'switcher', 'insertAfter', 0));
    for (const { id, kind } of names) rig.text(`${id} = ${kind}`);
    for (let s = 0; s < 4; s += 1) {
      const states = names.flatMap(({ id }) => (r.chance(0.2) ? [] : [[id, r.chance(0.4) ? 'on' : 'off'] as const]));
      rig.sound(`s${s}`, { pedals: Object.fromEntries(states) });
      for (const [id, state] of states)
        if (state === 'off' && r.chance(0.15)) rig.do(tolerate(rig.show, `s${s}`, id, true));
    }
    const it = planned(rig.show);
    const show = wired(it);
    const after = lineIn(show);
    const zoneOf = (zones: readonly number[], line: Line) =>
      Object.fromEntries(line.pieces.map(({ id }, i) => [id, zones[i]]));
    const read = planAsWired(after, allocationOf(show, after));
    expect({ seed, zones: zoneOf(read.zones, after) }).toEqual({ seed, zones: zoneOf(it.plan.zones, it.line) });
    compared += 1;
    const { tracer } = contextOf(show);
    const { lost } = judgePlan(it.compiled, it.plan)!;
    it.compiled.source.sounds.forEach(({ name, on, any, tolerates }, s) => {
      const { passes } = tracer.trace(show.rig.sounds[name]);
      const active = passes.filter(({ activeSections }) => activeSections.length > 0);
      // An amp is passed twice: as the preamp first.
      const heard = [...new Set(active.map(({ device }) => device as string))];
      const wanted = heard.filter((id) => on.includes(id));
      const isPlayed =
        wanted.join() ===
          it.line.pieces
            .map(({ id }) => id as string)
            .filter((id) => on.includes(id))
            .join() && heard.every((id) => [...on, ...any, ...tolerates, 'guitar', 'amp', 'cabinet'].includes(id));
      if (lost[s] !== null) return;
      played += 1;
      if (!isPlayed) wrong.push({ seed, name, heard, on, any, tolerates, places: placesIn(it) });
    });
    expect(it.plan.zones.every((zone) => zone >= out)).toBe(true);
  }
  expect(wrong).toEqual([]);
  expect(compared).toBe(40);
  expect(played).toBeGreaterThan(100);
});
