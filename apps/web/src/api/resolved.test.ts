import { expect, test } from '@jest/globals';
import { applySteps, type Command, commands, demoShow, type Show, Tracer, buildWiring } from '@yunta/core';
import { Resolver } from './resolved.ts';

const edited = (show: Show, command: Command): Show => {
  const result = applySteps(show, command.steps);
  if (!result.ok) throw new Error(JSON.stringify(result.problems));
  return result.value;
};

test('an edit of sounds, lengths or counting keeps the tracer; one of the patch does not; all of them say what one resolved anew says', () => {
  const resolver = new Resolver();
  let show = demoShow();
  const first = resolver.resolve(show.rig);
  expect(resolver.resolve(show.rig)).toBe(first);
  for (const [edit, keeps] of [
    [(now: Show) => commands.wantPedal(now, 'sound-1', 'drive-1', 'on'), true],
    [(now: Show) => commands.setCable(now, 'cable-1', 'length', 9), true],
    [(now: Show) => commands.setDevice(now, 'echo', 'firstPresetNumber', 0), true],
    [(now: Show) => commands.setDevice(now, 'echo', 'name', 'Delay'), false],
    [(now: Show) => commands.disconnect(now, 'cable-3'), false],
  ] as const) {
    const before = resolver.resolve(show.rig);
    show = edited(show, edit(show));
    const now = resolver.resolve(show.rig);
    const anew = buildWiring(show.rig);
    expect(now.tracer === before.tracer).toBe(keeps);
    expect(now.wiring).toEqual(anew);
    for (const sound of Object.values(show.rig.sounds))
      expect(now.tracer.trace(sound)).toEqual(new Tracer(anew).trace(sound));
  }
});
