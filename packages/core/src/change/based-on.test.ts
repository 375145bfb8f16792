import { describe, expect, test } from '@jest/globals';
import { differencesOf } from '../model/based-on.ts';
import type { Show } from '../model/documents.ts';
import { clean, fourCable, lead } from '../testing/build-show.ts';
import { Random } from '../testing/random.ts';
import { sameData } from '../units/same-data.ts';
import { addBuiltOn, buildOn, revertTo, twinBank, withFollowers } from './based-on.ts';
import * as commands from './commands.ts';
import type { Command } from './command.ts';
import { applySteps, invertSteps, type Step } from './steps.ts';

const applied = (show: Show, steps: readonly Step[]): Show => {
  const result = applySteps(show, steps);
  if (!result.ok) throw new Error(JSON.stringify(result.problems));
  return result.value;
};
/** As people edit: what builds on a sound follows it. */
const edited = (show: Show, command: Command): Show => applied(show, withFollowers(show, command.steps));

const plain = () => fourCable().sound('lead', lead).sound('clean', clean).laid().show;
/** *Solo* is the lead with another preset; *Last solo* is that with the drive off. */
function family(): Show {
  let show = plain();
  show = edited(show, addBuiltOn(show, 'solo', 'Solo', show.rig.sounds.lead));
  show = edited(show, commands.want(show, 'solo', 'delay/preset', 7));
  show = edited(show, addBuiltOn(show, 'last', 'Last solo', show.rig.sounds.solo));
  return edited(show, commands.wantPedal(show, 'last', 'drive', 'off'));
}
const differences = ({ rig: { sounds } }: Show, base: string, sound: string) =>
  differencesOf(sounds[base], sounds[sound]).map(({ key }) => key);

describe('a sound that builds on another', () => {
  test('is told as its difference', () => {
    const show = family();
    expect(differences(show, 'lead', 'solo')).toEqual(['delay/preset']);
    expect(differences(show, 'solo', 'last')).toEqual(['drive']);
    expect(differences(show, 'lead', 'last')).toEqual(['drive', 'delay/preset']);
  });

  test('follows what it holds the same, however far along, in one edit that undo takes back', () => {
    const show = family();
    const steps = withFollowers(show, commands.want(show, 'lead', 'combo/channel', 'clean').steps);
    const after = applied(show, steps);
    for (const id of ['lead', 'solo', 'last']) expect(after.rig.sounds[id].wants['combo/channel']).toBe('clean');
    expect(after.rig.sounds.clean).toBe(show.rig.sounds.clean);
    expect(sameData(applied(after, invertSteps(steps)), show)).toBe(true);
  });

  test('keeps what is its own, and what builds on it keeps that too', () => {
    const show = family();
    const after = edited(show, commands.want(show, 'lead', 'delay/preset', 2));
    expect(['lead', 'solo', 'last'].map((id) => after.rig.sounds[id].wants['delay/preset'])).toEqual([2, 7, 7]);
    const next = edited(after, commands.want(after, 'solo', 'delay/preset', undefined));
    expect(['lead', 'solo', 'last'].map((id) => next.rig.sounds[id].wants['delay/preset'])).toEqual([
      2,
      undefined,
      undefined,
    ]);
  });

  test('what an edit says of it itself goes before what it would follow', () => {
    const show = family();
    const steps = withFollowers(show, [
      ...commands.want(show, 'lead', 'combo/channel', 'clean').steps,
      ...commands.want(show, 'solo', 'combo/channel', undefined).steps,
    ]);
    const after = applied(show, steps);
    expect([after.rig.sounds.lead.wants['combo/channel'], after.rig.sounds.solo.wants['combo/channel']]).toEqual([
      'clean',
      undefined,
    ]);
  });

  test('cues of the parts that play it follow what hands do in its base', () => {
    let show = family();
    show = applied(
      show,
      commands.addSlot(show, {
        id: 'slot-solo',
        controller: 'switcher',
        bank: 5,
        position: 0,
        sound: 'solo',
        actions: null,
      } as never).steps,
    );
    show = applied(show, commands.addPart(show, 'part-solo', 'song', 'Solo', { slot: 'slot-solo' }).steps);
    const after = edited(show, commands.want(show, 'lead', 'guitar/selector', 'neck'));
    const cues = Object.values(after.rig.casting).filter(({ part }) => part === 'part-solo' || part === 'part-lead');
    expect(cues.map(({ before }) => before)).toEqual([
      [{ kind: 'cue', control: 'guitar/selector', value: 'neck' }],
      [{ kind: 'cue', control: 'guitar/selector', value: 'neck' }],
    ]);
  });

  test('stands on its own when its base goes, and goes back to it where one says so', () => {
    const show = family();
    const back = edited(show, revertTo(show, 'solo', differencesOf(show.rig.sounds.lead, show.rig.sounds.solo)));
    expect(differences(back, 'lead', 'solo')).toEqual([]);
    const alone = applied(show, commands.removeSound(show, 'lead').steps);
    expect(alone.rig.sounds.solo.basedOn).toBeUndefined();
    expect(alone.rig.sounds.solo.wants).toEqual(show.rig.sounds.solo.wants);
    expect(alone.rig.sounds.last.basedOn).toEqual({ sound: 'solo' });
  });

  test('builds on nothing that builds on it', () => {
    const show = family();
    const result = applySteps(show, buildOn(show, 'lead', 'last').steps);
    expect(!result.ok && result.problems.map(({ pointer, code }) => [pointer, code])).toContainEqual([
      '/rig/sounds/lead/basedOn/sound',
      'out-of-domain',
    ]);
    const nowhere = applySteps(
      show,
      buildOn({ ...show, rig: { ...show.rig, sounds: { ...show.rig.sounds, x: show.rig.sounds.lead } } }, 'lead', 'x')
        .steps,
    );
    expect(nowhere.ok).toBe(false);
  });

  test('whatever is edited at random, what was the same as the base stays so', () => {
    const random = new Random(11);
    let show = family();
    const refs = ['delay/preset', 'combo/channel', 'guitar/selector'] as const;
    const values = {
      'delay/preset': [1, 2, 3],
      'combo/channel': ['clean', 'lead'],
      'guitar/selector': ['neck', 'bridge'],
    };
    for (let round = 0; round < 300; round += 1) {
      const sound = random.pick(['lead', 'solo', 'last']);
      const ref = random.pick(refs);
      const same = ['solo', 'last'].filter(
        (id) => differences(show, show.rig.sounds[id].basedOn!.sound, id).includes(ref) === false,
      );
      const next = edited(show, commands.want(show, sound, ref, random.pick([...values[ref], undefined])));
      for (const id of same)
        if (id !== sound) expect(differences(next, next.rig.sounds[id].basedOn!.sound, id)).not.toContain(ref);
      show = next;
    }
  });
});

describe('a bank of twins', () => {
  test('each sound once more on the same switch of another bank, the same but for one thing', () => {
    const show = plain();
    const command = twinBank(show, 'switcher', 0, 3, { ref: 'guitar/selector', value: 'neck', name: 'cable' })!;
    const after = applied(show, command.steps);
    const twins = Object.values(after.rig.slots)
      .filter(({ bank }) => bank === 3)
      .map(({ position, sound }) => [position, after.rig.sounds[sound!].name]);
    expect(twins).toEqual([
      [0, 'Lead, cable'],
      [1, 'Clean, cable'],
    ]);
    for (const sound of Object.values(after.rig.sounds))
      if (sound.basedOn) expect(differences(after, sound.basedOn.sound, sound.id)).toEqual(['guitar/selector']);
  });
  test('none where a switch is taken, or the bank is empty', () => {
    const show = plain();
    expect(twinBank(show, 'switcher', 0, 0, { ref: 'guitar/selector', value: 'neck', name: 'x' })).toBeNull();
    expect(twinBank(show, 'switcher', 4, 5, { ref: 'guitar/selector', value: 'neck', name: 'x' })).toBeNull();
  });
});
