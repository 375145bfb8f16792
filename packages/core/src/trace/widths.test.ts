import { describe, expect, test } from '@jest/globals';
import { contextOf } from '../check/engine.ts';
import type { Show } from '../model/documents.ts';
import type { Cable } from '../model/rig.ts';
import { ShowBuilder } from '../testing/build-show.ts';
import { Random } from '../testing/random.ts';
import { Tracer } from './trace.ts';
import type { Collapse } from './widths.ts';
import { buildWiring } from '../model/wiring.ts';

const all = (show: Show) => contextOf(show).tracer.trace(null);

/** `Delay =stereo=> Reverb`, one for each link of the run. */
function linksOf(show: Show): readonly string[] {
  const { passes, widths } = all(show);
  const nameOf = (pass: number) => show.rig.devices[passes[pass].device].name;
  return passes.flatMap((pass) =>
    pass.next.map((next, i) => `${nameOf(pass.index)} ${widths.links[pass.index]?.[i] ?? 'mono'} ${nameOf(next)}`),
  );
}
const told = ({ kind, device, lost }: Collapse) => `${kind} ${device}${lost ? ` ${lost.side} at ${lost.jack}` : ''}`;
const collapsesOf = (show: Show): readonly string[] => all(show).widths.collapses.map(told);
const typed = (text: string) => new ShowBuilder().text(text).show;

describe('left and right', () => {
  test('go apart from a pedal that makes two of one to a stereo cabinet', () => {
    const show = typed('guitar > drive > delay = delay stereo => reverb = reverb stereo => power amp => cabinet');
    expect(linksOf(show)).toEqual([
      'Guitar mono Drive',
      'Drive mono Delay',
      'Delay stereo Reverb',
      'Reverb stereo Power amp',
      'Power amp stereo Cabinet',
    ]);
    expect(collapsesOf(show)).toEqual([]);
  });
  test('go one to each of two amps', () => {
    const show = typed(`guitar > reverb = reverb stereo => amp 1 = valve amp + amp 2 = valve amp
amp 1 > cab 1 = cabinet; amp 2 > cab 2 = cabinet`);
    expect(linksOf(show)).toEqual([
      'Guitar mono Reverb',
      'Reverb left Amp 1',
      'Reverb right Amp 2',
      'Amp 1 mono Cab 1',
      'Amp 2 mono Cab 2',
    ]);
    expect(collapsesOf(show)).toEqual([]);
  });
  test('are one pass through a switcher whose last loops are stereo, on and off', () => {
    const show = typed(`guitar > switcher = loop switcher 8 loops last stereo
6: chorus = chorus; out => power amp => cabinet`);
    expect(all(show).passes.map(({ device }) => device)).toEqual(['guitar', 'switcher', 'power-amp', 'cabinet']);
    const on = new ShowBuilder(show).sound('on', { wants: { 'switcher/loop-6': 1 } }).show;
    const trace = contextOf(on).tracer.trace(on.rig.sounds.on);
    expect(trace.passes.map(({ device }) => device)).toEqual([
      'guitar',
      'switcher',
      'chorus',
      'switcher',
      'power-amp',
      'cabinet',
    ]);
  });
  test('of a two-channel effect stand in two loops, each a pass of its own', () => {
    const show = new ShowBuilder()
      .text(
        `guitar > switcher = loop switcher 4
multi = multi-effect midi two channels
send 1 > multi in left; multi out left > return 1; send 3 > multi in right; multi out right > return 3
switcher > amp > cabinet`,
      )
      .sound('both', {
        wants: { 'switcher/loop-1': 1, 'switcher/loop-3': 1, 'multi/mode': 'two channels', 'multi/on': 1 },
      })
      .sound('mixed', {
        wants: { 'switcher/loop-1': 1, 'switcher/loop-3': 1, 'multi/mode': 'stereo', 'multi/on': 1 },
      }).show;
    const { tracer } = contextOf(show);
    const { passes } = tracer.trace(show.rig.sounds.both);
    expect(passes.filter(({ device }) => device === 'multi')).toHaveLength(2);
    expect(tracer.trace(show.rig.sounds.both).cycles).toEqual([]);
    // Mixed inside, what leaves by the first loop comes in again by the second: a way back.
    expect(tracer.trace(show.rig.sounds.mixed).cycles.map(({ verdict }) => verdict)).toEqual(['howls']);
  });
});

describe('stereo ends', () => {
  test('where a mono piece sums both sides', () => {
    const show = typed(`guitar > delay = delay stereo
mixer = mixer two inputs
delay out left > mixer in 1; delay out right > mixer in 2; mixer > desk`);
    expect(linksOf(show)).toContain('Delay stereo Mixer');
    expect(collapsesOf(show)).toEqual(['summed mixer']);
  });
  test('where one side goes nowhere though nothing carries the sum', () => {
    const show = typed(`guitar > switcher = loop switcher 8 loops last stereo
6: chorus = chorus stereo`);
    const rig = new ShowBuilder(show)
      .text('send 7 > delay = delay stereo => return 7; switcher out left > amp > cabinet')
      .sound('wide', { wants: { 'switcher/loop-7': 1 } }).show;
    const trace = contextOf(rig).tracer.trace(rig.rig.sounds.wide);
    expect(trace.widths.collapses.map(told)).toEqual(['lost switcher right at out-right']);
  });
  test('not where the left output alone carries the sum, as the plugs decide', () => {
    expect(collapsesOf(typed('guitar > delay = delay stereo > amp > cabinet'))).toEqual([]);
    expect(collapsesOf(typed('guitar > a = delay stereo => b = reverb stereo > amp > cabinet'))).toEqual(['summed b']);
  });
  test('not where both sides are the same signal', () => {
    expect(
      collapsesOf(
        typed(`guitar > switcher = loop switcher 8 loops last stereo
switcher out left > amp > cabinet`),
      ),
    ).toEqual([]);
  });
});

describe('poles of a cable', () => {
  const stereoJack = (id: string, name: string) => (builder: ShowBuilder) =>
    builder.device(id, 'chorus-stereo', name, {}, { stereoJacks: 'one jack' });
  const builder = () =>
    stereoJack('chorus', 'Chorus')(new ShowBuilder().text('guitar; amp > cab = cabinet; two = reverb stereo'));
  test('one stereo jack to left and right is one cord of three plugs', () => {
    const { rig } = builder().text('guitar > chorus => two > amp').show;
    const cord = Object.values(rig.cables).find(({ plugs }) => plugs.length === 3)!;
    expect(cord.poles).toEqual([
      [
        { plug: 0, pole: 'tip' },
        { plug: 1, pole: 'tip' },
      ],
      [
        { plug: 0, pole: 'ring' },
        { plug: 2, pole: 'tip' },
      ],
    ]);
    expect(linksOf(builder().text('guitar > chorus => two > amp').show)).toContain('Chorus stereo Two');
  });
  test('a mono plug in a stereo jack loses the ring', () => {
    expect(collapsesOf(builder().text('guitar > chorus > amp').show)).toEqual(['lost chorus right at out']);
  });
});

/** Random stereo lines: pedals of the three widths in a row, a stereo end, some links by the left alone. */
function randomLine(random: Random): Show {
  const types = ['drive', 'chorus-stereo', 'delay-stereo', 'reverb-stereo', 'volume-stereo'];
  const builder = new ShowBuilder().device('guitar', 'guitar', 'Guitar');
  const count = 1 + random.below(4);
  for (let i = 0; i < count; i += 1) builder.device(`p${i}`, random.pick(types), `P${i}`);
  builder.device('end', random.pick(['cabinet-stereo', 'desk-stereo']), 'End');
  if (builder.show.rig.devices.end.type.archetype === 'cabinet') {
    builder.device('power', 'power-amp-stereo', 'Power');
    builder.text('power => end');
  }
  const last = builder.show.rig.devices.power ? 'power' : 'end';
  const names = ['guitar', ...Array.from({ length: count }, (_, i) => `p${i}`), last];
  for (let i = 0; i + 1 < names.length; i += 1) {
    const wide = random.chance(0.7) && canBeWide(builder.show, names[i], names[i + 1]);
    builder.text(`${names[i]} ${wide ? '=>' : '>'} ${names[i + 1]}`);
  }
  return builder.show;
}
function canBeWide(show: Show, from: string, to: string): boolean {
  const jacks = (id: string) => buildWiring(show.rig).device.get(id)!.anatomy.jacks;
  return (
    jacks(from).some((jack) => jack.twin !== undefined && jack.kind === 'signal-out') &&
    jacks(to).some((jack) => jack.twin !== undefined && jack.kind === 'signal-in')
  );
}

/** Left and right swapped everywhere: each plug of a jack of a pair goes into its twin. */
function mirrored(show: Show): Show {
  const { device } = buildWiring(show.rig);
  const twin = ({ device: id, jack }: Cable['plugs'][number]) => {
    const { jacks } = device.get(id)!.anatomy;
    return jacks.find((each) => each.twin === jack)?.id ?? jacks.find((each) => each.id === jack)?.twin ?? jack;
  };
  const isPaired = (cable: Cable) => {
    const other = Object.values(show.rig.cables).find(
      (each) => each !== cable && each.plugs.every((plug, i) => plug.device === cable.plugs[i].device),
    );
    return other !== undefined;
  };
  const cables = Object.fromEntries(
    Object.entries(show.rig.cables).map(([id, cable]) => [
      id,
      isPaired(cable) ? { ...cable, plugs: cable.plugs.map((plug) => ({ ...plug, jack: twin(plug) })) } : cable,
    ]),
  );
  return { ...show, rig: { ...show.rig, cables } };
}

describe('laws', () => {
  const shows = Array.from({ length: 60 }, (_, seed) => randomLine(new Random(1600 + seed)));
  test('a mono end hears the sum of what left and right hear: what works on either works on it', () => {
    for (const show of shows) {
      const wide = all(show);
      const working = (trace: typeof wide) =>
        new Set(trace.passes.filter((pass) => pass.activeSections.length > 0).map((pass) => pass.device));
      // The same rig with every right plug pulled: each left output alone carries both sides.
      const left = {
        ...show,
        rig: {
          ...show.rig,
          cables: Object.fromEntries(
            Object.entries(show.rig.cables).filter(([, { plugs }]) =>
              plugs.every(({ jack }) => !jack.endsWith('-right')),
            ),
          ),
        },
      };
      expect([wide.sounds, working(wide)]).toEqual([true, working(all(left))]);
    }
  });
  test('swapping left and right everywhere changes nothing that is told but the names', () => {
    const swap = (words: string) => words.replace(/left|right/g, (side) => (side === 'left' ? 'right' : 'left'));
    for (const show of shows) {
      const [one, other] = [all(show), new Tracer(buildWiring(mirrored(show).rig)).trace(null)];
      expect(other.passes.map(({ device, next }) => [device, next])).toEqual(
        one.passes.map(({ device, next }) => [device, next]),
      );
      expect(other.widths.links.map((links) => links.map(swap))).toEqual(one.widths.links);
      expect(other.widths.collapses.map(({ kind, device }) => `${kind} ${device}`)).toEqual(
        one.widths.collapses.map(({ kind, device }) => `${kind} ${device}`),
      );
    }
  });
});
