import { describe, expect, test } from '@jest/globals';
import * as commands from '../change/commands.ts';
import type { Command } from '../change/command.ts';
import { applySteps, invertSteps } from '../change/steps.ts';
import { demoShow, flyShow } from '../demo/demo.ts';
import type { Show } from '../model/documents.ts';
import { starters } from '../starters/starters.ts';
import { fourCable, lead, clean } from '../testing/build-show.ts';
import { sameData } from '../units/same-data.ts';
import { addVariant, editVariant, removeVariant, setVariant, settleConflicts, variantSteps } from './edit.ts';
import { movesBetween } from './moves.ts';
import { variantOf } from './view.ts';

const applied = (show: Show, { steps }: Pick<Command, 'steps'>): Show => {
  const result = applySteps(show, steps);
  if (!result.ok) throw new Error(JSON.stringify(result.problems));
  return result.value;
};
const edited = (base: Show, edit: (shown: Show) => Command, id = 'tonight'): Show => {
  const { show } = variantOf(base, id);
  const result = editVariant(base, show, id, edit(show));
  if (!result.ok) throw new Error(JSON.stringify(result.problems));
  const after = applied(base, result.value.command);
  // What is shown at once is what a reader of the base gets.
  expect(
    sameData(variantOf(after, id).show, {
      ...result.value.show,
      rig: { ...result.value.show.rig, variants: after.rig.variants },
    }),
  ).toBe(true);
  return after;
};
const withoutVariants = ({ rig: { variants: _, ...rig }, songbook }: Show) => ({ rig, songbook });

const plain = () => fourCable().sound('lead', lead).sound('clean', clean).laid().show;
/** Tonight without the loop of the delay, on another channel, with a piece more. */
const tonight = (): Show => {
  let base = applied(plain(), addVariant(plain(), 'tonight', 'Tonight'));
  base = edited(base, (show) => commands.removeDevice(show, 'delay'));
  base = edited(base, (show) => commands.setDevice(show, 'switcher', 'place', 'board'));
  return edited(base, (show) => commands.want(show, 'lead', 'combo/channel', 'clean'));
};

describe('a variant', () => {
  test('holds what is otherwise than in the rig, and the rig stays as it is', () => {
    const base = tonight();
    expect(sameData(withoutVariants(base), withoutVariants(plain()))).toBe(true);
    const { show, conflicts } = variantOf(base, 'tonight');
    expect(conflicts).toEqual([]);
    expect(Object.keys(show.rig.devices)).not.toContain('delay');
    expect(show.rig.sounds.lead.wants['combo/channel']).toBe('clean');
    expect(Object.values(show.rig.cables).some(({ plugs }) => plugs.some(({ device }) => device === 'delay'))).toBe(
      false,
    );
  });

  test('follows the rig in all that it leaves alone', () => {
    const base = tonight();
    const after = applied(base, commands.setDevice(base, 'drive', 'name', 'Drive, soft'));
    const { show, conflicts } = variantOf(after, 'tonight');
    expect(conflicts).toEqual([]);
    expect(show.rig.devices.drive.name).toBe('Drive, soft');
    expect(Object.keys(show.rig.devices)).not.toContain('delay');
  });

  test('is no edit at all where it says what the rig says, and is taken back step by step', () => {
    let base = applied(plain(), addVariant(plain(), 'tonight', 'Tonight'));
    const before = base;
    base = edited(base, (show) => commands.setDevice(show, 'drive', 'name', 'Fuzz'));
    expect(base.rig.variants!.tonight.steps).toHaveLength(1);
    base = edited(base, (show) => commands.setDevice(show, 'drive', 'name', 'Drive'));
    expect(base.rig.variants!.tonight.steps).toEqual([]);
    expect(sameData(base, before)).toBe(true);
  });

  test('shares the songs: an edit of them goes into the songbook of all', () => {
    const base = tonight();
    const after = edited(base, (show) => commands.setSong(show, 'song', 'name', 'Other song'));
    expect(after.songbook.songs.song.name).toBe('Other song');
    expect(after.rig.variants).toEqual(base.rig.variants);
  });

  test('is named, copied, renamed and removed, and undone', () => {
    const base = tonight();
    const two = applied(base, addVariant(base, 'mono', 'In mono', 'tonight'));
    expect(two.rig.variants!.mono.steps).toEqual(base.rig.variants!.tonight.steps);
    const renamed = applied(two, setVariant(two, 'mono', 'name', 'One side'));
    expect(renamed.rig.variants!.mono.name).toBe('One side');
    const removal = removeVariant(renamed, 'mono');
    const gone = applied(renamed, removal);
    expect(Object.keys(gone.rig.variants!)).toEqual(['tonight']);
    expect(sameData(applied(gone, { steps: invertSteps(removal.steps) }), renamed)).toBe(true);
  });

  test('says the steps from any rig to any other, and comes to it', () => {
    const shows = [demoShow(), flyShow(), ...starters.slice(0, 8).map((starter) => starter.make('rig', starter.name))];
    const book = shows[0].songbook;
    const bare = shows.map((show): Show => ({ rig: { ...show.rig, id: 'rig', casting: {} }, songbook: book }));
    for (const from of bare)
      for (const to of bare) {
        const variant = { id: 'v', name: 'V', order: 'a', steps: variantSteps(from, to) };
        const base: Show = { ...from, rig: { ...from.rig, variants: { v: variant } } };
        const { show, conflicts } = variantOf(base, 'v');
        expect(conflicts).toEqual([]);
        expect(sameData(withoutVariants(show), withoutVariants(to))).toBe(true);
      }
  });
});

describe('where a variant and its rig have parted', () => {
  test('a value that the rig has changed meanwhile: tonight’s stands, and is told', () => {
    const base = tonight();
    const after = applied(base, commands.want(base, 'lead', 'combo/channel', undefined));
    const { show, conflicts } = variantOf(after, 'tonight');
    expect(show.rig.sounds.lead.wants['combo/channel']).toBe('clean');
    expect(conflicts).toMatchObject([
      { kind: 'changed', at: ['sounds', 'lead', 'wants', 'combo/channel'], base: undefined, tonight: 'clean' },
    ]);
    const kept = applied(after, settleConflicts(after, 'tonight', conflicts, 'tonight'));
    expect(variantOf(kept, 'tonight')).toMatchObject({
      conflicts: [],
      show: { rig: { sounds: { lead: { wants: { 'combo/channel': 'clean' } } } } },
    });
    const taken = applied(after, settleConflicts(after, 'tonight', conflicts, 'base'));
    expect(variantOf(taken, 'tonight').conflicts).toEqual([]);
    expect(variantOf(taken, 'tonight').show.rig.sounds.lead.wants['combo/channel']).toBeUndefined();
  });

  test('the same edit in both is no conflict', () => {
    const base = tonight();
    const after = applied(base, commands.want(base, 'lead', 'combo/channel', 'clean'));
    expect(variantOf(after, 'tonight').conflicts).toEqual([]);
  });

  test('a rig that lost its device: what was changed of it is gone, all else stands', () => {
    let base = applied(plain(), addVariant(plain(), 'tonight', 'Tonight'));
    base = edited(base, (show) => commands.setDevice(show, 'delay', 'channel', 9));
    base = edited(base, (show) => commands.setDevice(show, 'drive', 'name', 'Fuzz'));
    const after = applied(base, commands.removeDevice(base, 'delay'));
    const { show, conflicts } = variantOf(after, 'tonight');
    expect(conflicts).toMatchObject([{ kind: 'gone', at: ['devices', 'delay', 'channel'] }]);
    expect(show.rig.devices.drive.name).toBe('Fuzz');
    const settled = applied(after, settleConflicts(after, 'tonight', conflicts, 'tonight'));
    expect(settled.rig.variants!.tonight.steps).toHaveLength(1);
    expect(variantOf(settled, 'tonight').conflicts).toEqual([]);
  });

  test('an edit of something else settles nothing, and neither does settling one of two', () => {
    let base = applied(plain(), addVariant(plain(), 'tonight', 'Tonight'));
    base = edited(base, (show) => commands.setDevice(show, 'delay', 'channel', 9 as never));
    base = edited(base, (show) => commands.setDevice(show, 'drive', 'name', 'Fuzz'));
    base = edited(base, (show) => commands.setDevice(show, 'combo', 'name', 'Other amp'));
    base = applied(base, commands.setDevice(base, 'drive', 'name', 'Overdrive'));
    base = applied(base, commands.setDevice(base, 'combo', 'name', 'Amp'));
    base = applied(base, commands.removeDevice(base, 'delay'));
    const parted = ['gone devices/delay/channel', 'changed devices/drive/name', 'changed devices/combo/name'].sort();
    const told = (show: Show) => variantOf(show, 'tonight').conflicts.map(({ kind, at }) => `${kind} ${at.join('/')}`);
    expect(told(base).sort()).toEqual(parted);
    const later = edited(base, (show) => commands.setDevice(show, 'switcher', 'name', 'Floor'));
    expect(told(later).sort()).toEqual(parted);
    const { conflicts } = variantOf(later, 'tonight');
    const drive = conflicts.filter(({ at }) => at[1] === 'drive');
    for (const side of ['tonight', 'base'] as const) {
      const after = applied(later, settleConflicts(later, 'tonight', drive, side));
      expect(told(after).sort()).toEqual(parted.filter((line) => !line.includes('drive')));
      expect(variantOf(after, 'tonight').show.rig.devices.drive.name).toBe(side === 'tonight' ? 'Fuzz' : 'Overdrive');
    }
    // Edited in the variant, it is settled by that.
    const named = edited(later, (show) => commands.setDevice(show, 'drive', 'name', 'Third'));
    expect(told(named).sort()).toEqual(parted.filter((line) => !line.includes('drive')));
  });

  test('a song removed while a variant is in use goes from the rig too', () => {
    const base = tonight();
    const after = edited(base, (show) => commands.removeSong(show, 'song'));
    expect(after.songbook.songs).toEqual({});
    expect(after.rig.casting).toEqual({});
    expect(variantOf(after, 'tonight').conflicts).toEqual([]);
  });

  test('a cable of tonight to a jack that the rig lost is left out and told', () => {
    let base = applied(plain(), addVariant(plain(), 'tonight', 'Tonight'));
    base = edited(base, (show) =>
      commands.connect(
        show,
        'extra',
        [
          { device: 'switcher', jack: 'send-4' },
          { device: 'switcher', jack: 'return-4' },
        ],
        1,
      ),
    );
    const after = applied(base, commands.setParam(base, 'switcher', 'loops', 3));
    const { show, conflicts } = variantOf(after, 'tonight');
    expect(conflicts).toMatchObject([{ kind: 'left-out', at: ['cables', 'extra'] }]);
    expect(show.rig.cables.extra).toBeUndefined();
    const settled = applied(after, settleConflicts(after, 'tonight', conflicts, 'tonight'));
    expect(settled.rig.variants!.tonight.steps).toEqual([]);
  });
});

describe('moves', () => {
  const words = (from: Show, to: Show) => movesBetween(from, to).map(({ kind, words }) => `${kind} ${words}`);

  test('pull, leave, plug, program: in the order in which hands do it', () => {
    const base = plain();
    const { show } = variantOf(tonight(), 'tonight');
    expect(words(base, show)).toEqual([
      'unplug C06: pull Switcher, Send 3',
      'unplug C06: pull Delay, In',
      'unplug C07: pull Delay, Out',
      'unplug C07: pull Switcher, Return 3',
      'unplug M10: pull Switcher, MIDI out',
      'unplug M10: pull Delay, MIDI in',
      'leave Delay (Board)',
      'program Switcher, bank 1, switch 1 (Lead): Loop 3 off; Contact 1 open',
    ]);
    expect(words(show, base).map((line) => line.split(' ')[0])).toEqual([
      'bring',
      ...Array.from({ length: 6 }, () => 'plug'),
      'program',
      'program',
    ]);
  });

  test('one end that goes elsewhere is one move', () => {
    const base = plain();
    const cable = Object.values(base.rig.cables).find(
      ({ plugs }) => plugs[1].device === 'delay' && plugs[1].jack === 'in',
    )!;
    const moved = applied(
      base,
      commands.setCable(base, cable.id, 'plugs', [{ device: 'switcher', jack: 'send-4' }, cable.plugs[1]]),
    );
    expect(words(base, moved).filter((line) => line.startsWith('plug'))).toEqual([
      'plug C06: from Switcher, Send 3 to Switcher, Send 4',
    ]);
  });

  test('what is stored and what hands set is told with what it was', () => {
    const base = plain();
    const stored = applied(base, commands.setPreset(base, 'delay', 4, { name: 'Long', values: { mix: 40 } }));
    expect(words(base, stored)).toEqual(['store Delay preset 5: name Long, mix 40']);
    const cued = applied(base, commands.want(base, 'lead', 'guitar/selector', 'neck'));
    expect(words(base, cued)).toEqual(['hands Lead: Guitar selector neck']);
    expect(words(cued, applied(cued, commands.want(cued, 'lead', 'guitar/selector', 'bridge')))).toEqual(
      ['hands Lead: Guitar selector bridge (was Guitar selector neck)'].map((line) =>
        line.replace('was Guitar selector neck', 'was neck'),
      ),
    );
  });

  test('none from a rig to itself; as many plugs one way as the other', () => {
    const shows = [demoShow(), flyShow()];
    for (const show of shows) expect(movesBetween(show, show)).toEqual([]);
    const plugs = (from: Show, to: Show) =>
      movesBetween(from, to).filter(({ kind }) => kind === 'unplug' || kind === 'plug').length;
    expect(plugs(shows[0], shows[1])).toBe(plugs(shows[1], shows[0]));
  });
});
