import { describe, expect, test } from '@jest/globals';
import { typeById } from '../catalogue/types.ts';
import { check, contextOf } from '../check/engine.ts';
import { rules } from '../check/rules/index.ts';
import { addJack, addMessage, removeControl, removeJack, setPathEffect } from '../design/edit-anatomy.ts';
import { anatomyOf } from '../model/archetypes/registry.ts';
import type { Show } from '../model/documents.ts';
import { starters } from '../starters/starters.ts';
import { fourCable, clean, lead } from '../testing/build-show.ts';
import { ordinary } from '../testing/rule-rigs.ts';
import type { Command } from './commands.ts';
import { nameType, openDevice, setAnatomy, stillNeeded, takeType } from './set-anatomy.ts';
import { applySteps, invertSteps } from './steps.ts';

const after = (show: Show, { steps }: Command): Show => {
  const result = applySteps(show, steps);
  if (!result.ok) throw new Error(JSON.stringify(result.problems));
  return result.value;
};
const codes = (show: Show, { steps }: Command) => {
  const result = applySteps(show, steps);
  return result.ok ? [] : result.problems.map(({ code, pointer }) => `${code} ${pointer}`);
};
const allOpen = (show: Show): Show =>
  Object.keys(show.rig.devices).reduce((now, id) => after(now, openDevice(now, id, `own-${id}`)), show);
const inside = (show: Show, device: string) => anatomyOf(show.rig.devices[device].type);

/** What is traced and found, and whether each slot recalls. */
function judged(show: Show) {
  const context = contextOf(show);
  const { findings } = check(context, rules);
  return {
    findings: findings.map((finding) => `${finding.ruleId} ${finding.messageId} ${finding.at.device ?? ''}`).sort(),
    verdicts: context.prover
      .pairs()
      .flatMap(({ slot, sound }) =>
        ([1, 2, 3, 4] as const).map((level) => context.prover.judge(slot, sound, level).verdict),
      ),
    passes: Object.values(show.rig.sounds).map((sound) =>
      context.tracer.trace(sound).passes.map(({ device, effects }) => `${device} ${effects.join(' ')}`),
    ),
  };
}

describe('a device whose inside is written out', () => {
  test('behaves as before, whatever it is: nothing that is traced, found or proved changes', () => {
    const { show } = ordinary();
    expect(judged(allOpen(show))).toEqual(judged(show));
    for (const starter of starters) {
      const begun = starter.make('s', 'S');
      expect({ id: starter.id, ...judged(allOpen(begun)) }).toEqual({ id: starter.id, ...judged(begun) });
    }
  });
  test('undone, all is as it was', () => {
    const { show } = ordinary();
    const opened = openDevice(show, 'drive', 'own-drive');
    expect(after(after(show, opened), { ...opened, steps: invertSteps(opened.steps) })).toEqual(show);
  });
});

describe('what is inside changed', () => {
  const { show } = fourCable().sound('lead', lead).sound('clean', clean).laid();
  const open = after(show, openDevice(show, 'delay', 'own-delay'));

  test('only the lists that changed are written, and the trace follows', () => {
    const anatomy = inside(open, 'delay');
    const wet = anatomy.sections.find(({ effect }) => effect === 'delay')!;
    const changed = setAnatomy(open, 'delay', setPathEffect(anatomy, wet.id, 'reverb'), 'Paths');
    expect(changed.steps.map(({ at }) => at.at(-1))).toEqual(['sections']);
    const trace = contextOf(after(open, changed)).tracer.trace(open.rig.sounds.lead);
    expect(trace.passes.flatMap(({ effects }) => effects)).toContain('reverb');
  });

  test('what a cable, a sound or a slot needs is told before it goes', () => {
    const anatomy = inside(open, 'delay');
    const facts = (next: typeof anatomy) => stillNeeded(open, 'delay', next)?.facts;
    const plugged = anatomy.jacks.find(({ kind }) => kind === 'signal-in')!;
    expect(facts(removeJack(anatomy, plugged.id))).toMatchObject({ what: 'Jack', id: plugged.label });
    expect(facts(addJack(anatomy, 'Aux', 'signal-in'))).toBeUndefined();
    expect(codes(open, setAnatomy(open, 'delay', removeJack(anatomy, plugged.id), 'Jacks'))).toEqual([
      expect.stringContaining('jack-missing'),
    ]);
    const combo = after(show, openDevice(show, 'combo', 'own-combo'));
    expect(stillNeeded(combo, 'combo', removeControl(inside(combo, 'combo'), 'channel'))?.facts).toMatchObject({
      what: 'Control',
      by: expect.stringContaining('sound'),
    });
  });

  test('facts of this unit about a control that goes, go with it', () => {
    const pedal = after(show, openDevice(show, 'drive', 'own-drive'));
    const told = {
      ...pedal,
      rig: {
        ...pedal.rig,
        sounds: {},
        slots: {},
        casting: {},
        devices: { ...pedal.rig.devices, drive: { ...pedal.rig.devices.drive, owners: { on: 'foot' as const } } },
      },
    };
    const next = removeControl(inside(told, 'drive'), 'on');
    expect(stillNeeded(told, 'drive', next)).toBeUndefined();
    expect(after(told, setAnatomy(told, 'drive', next, 'Controls')).rig.devices.drive.owners).toEqual({});
  });

  test('an anatomy that does not hold together is refused, and nothing changes', () => {
    const anatomy = addMessage(inside(open, 'delay'), 'nothing');
    expect(codes(open, setAnatomy(open, 'delay', anatomy, 'Messages'))).toEqual([expect.stringContaining('not-found')]);
  });
});

test('a later revision of a type is taken with what this unit still has', () => {
  const { show } = ordinary();
  const type = {
    ...typeById('drive').type,
    revision: 2,
    params: { ...typeById('drive').type.params, bypass: 'buffered' },
  };
  const taken = after(show, takeType(show, 'drive', type));
  expect(taken.rig.devices.drive).toEqual({ ...show.rig.devices.drive, type });
  expect(after(taken, nameType(taken, 'drive', 'Soft drive')).rig.devices.drive.type.name).toBe('Soft drive');
});
