import { describe, expect, test } from '@jest/globals';
import { commands, demoShow, type Finding } from '@yunta/core';
import { JudgedShow } from './judged-show.ts';
import { OpenRig } from './open-rig.ts';
import { ShowStore } from './store.ts';

async function opened(kept: string | null = null) {
  const saved: string[] = [];
  const store = await ShowStore.open(
    { id: 'rig', revision: 0, songbookRevision: 0, sharedWith: [], ...demoShow() },
    {
      readShow: () => new Promise(() => undefined),
      sendBatch: () => new Promise(() => undefined),
      ownSongbook: () => new Promise(() => undefined),
      storage: {
        load: () => Promise.resolve({ edits: [], unreadable: 0 }),
        put: () => Promise.resolve(),
        remove: () => Promise.resolve(),
        loadShow: () => Promise.resolve(null),
        loadUndo: () => Promise.resolve({ undo: [], redo: [] }),
        keepUndo: () => Promise.resolve(),
        keepShow: () => Promise.resolve(),
      },
      windows: { announce: () => undefined, listen: () => () => undefined },
    },
  );
  const open = new OpenRig('rig', store, new JudgedShow(store, () => Promise.resolve(null)), {
    load: () => kept,
    save: (sound) => saved.push(sound),
    loadVariant: () => null,
    saveVariant: (variant) => saved.push(variant ?? 'the rig itself'),
  });
  let notified = 0;
  open.subscribe(() => (notified += 1));
  return { open, store, saved, notified: () => notified };
}
const soundIds = Object.keys(demoShow().rig.sounds);

describe('the open rig', () => {
  test('is the same object until something that it holds changes', async () => {
    const { open, store } = await opened();
    const first = open.get();
    store.tell('hello');
    expect(open.get()).toBe(first);
    first.run(commands.renameRig(first.show, 'Other'));
    expect(open.get()).not.toBe(first);
    expect(open.get().show.rig.name).toBe('Other');
    expect(open.get().tracer).toBe(first.tracer);
  });
  test('begins with the sound of last time, or the first where that is gone', async () => {
    expect((await opened(soundIds[3])).open.get().sound?.id).toBe(soundIds[3]);
    const { open } = await opened('gone');
    const first = open.get().sound!;
    open.get().run(commands.removeSound(open.get().show, first.id));
    expect(open.get().sound?.id).not.toBe(first.id);
    expect(open.get().sound).not.toBeNull();
  });
  test('what is selected is told and kept; a device that goes is selected no more', async () => {
    const { open, saved, notified } = await opened();
    open.get().selectSound(soundIds[5]);
    open.get().selectDevice('echo');
    expect([open.get().sound?.id, open.get().device, notified(), saved]).toEqual([
      soundIds[5],
      'echo',
      2,
      [soundIds[5]],
    ]);
    open.get().run(commands.removeDevice(open.get().show, 'echo'));
    expect(open.get().device).toBeNull();
  });
  test('a finding selects what it is about, and its fix is one edit with undo', async () => {
    const { open, store } = await opened();
    const { show, selectFinding, fix } = open.get();
    const steps = commands.renameRig(show, 'Mended').steps;
    const finding: Finding = {
      ruleId: 'x',
      messageId: 'y',
      severity: 'worth-knowing',
      at: { sound: soundIds[2], device: 'echo' },
      data: {},
      fix: { label: 'Mend', steps },
    };
    selectFinding(finding);
    expect([open.get().sound?.id, open.get().device]).toEqual([soundIds[2], 'echo']);
    fix(finding);
    expect(open.get().show.rig.name).toBe('Mended');
    store.undo();
    expect(open.get().show.rig.name).toBe(show.rig.name);
  });
});
