import { describe, expect, jest, test } from '@jest/globals';
import { applySteps, type Batch, commands, demoShow, describeProblem, emptyShow, flyShow, type Rig, type Show, sharingProblems, type Songbook } from '@yunta/core';
import type { AppliedBatch, SentBatch, ShowAtRevision } from '@yunta/contract';
import fc from 'fast-check';
import { RefusedError } from './shows.ts';
import { ShowStore, type Ways } from './store.ts';

/** The server as the store sees it: two rigs over one songbook, each batch once, and a wire that a test can cut. */
class Server {
  private readonly rigs = new Map<string, { rig: Rig; revision: number; book: { songbook: Songbook; revision: number } }>();
  private readonly applied = new Map<string, number>();
  /** How many of the next answers get lost on their way back. */
  lostAnswers = 0;

  constructor({ rig, songbook }: Show = demoShow(), fly: Rig = flyShow().rig) {
    const book = { songbook, revision: 0 };
    this.rigs.set('combo', { rig, revision: 0, book });
    this.rigs.set('fly', { rig: fly, revision: 0, book });
  }

  delete(id: string): void {
    this.rigs.delete(id);
  }

  private held(id: string) {
    const held = this.rigs.get(id);
    if (!held) throw new RefusedError({ type: 'urn:x', title: 'There is no rig.', status: 404, code: 'not-found', errors: [] }, 'There is no rig.');
    return held;
  }

  read(id: string): ShowAtRevision {
    const held = this.held(id);
    const others = [...this.rigs.values()].filter((other) => other !== held && other.book === held.book);
    return { id, revision: held.revision, songbookRevision: held.book.revision, sharedWith: others.map((other) => other.rig.name), rig: held.rig, songbook: held.book.songbook };
  }

  private apply(id: string, { base, ...batch }: SentBatch): AppliedBatch {
    const held = this.held(id);
    const before = this.applied.get(batch.id);
    if (before !== undefined) return { revision: before, songbookRevision: held.book.revision, repeated: true };
    expect(base).toBeLessThanOrEqual(held.revision);
    const result = applySteps({ rig: held.rig, songbook: held.book.songbook }, batch.steps);
    const others = [...this.rigs.values()].filter((other) => other !== held && other.book === held.book).map((other) => other.rig);
    const problems = result.ok ? sharingProblems(held.book.songbook, result.value.songbook, others) : result.problems;
    if (!result.ok || problems.length > 0) throw new RefusedError({ type: 'urn:x', title: describeProblem(problems[0]), status: 409, code: problems[0].code, errors: problems }, describeProblem(problems[0]));
    held.rig = result.value.rig;
    held.revision += 1;
    held.book.songbook = result.value.songbook;
    if (batch.steps.some((step) => step.doc === 'songbook')) held.book.revision += 1;
    this.applied.set(batch.id, held.revision);
    return { revision: held.revision, songbookRevision: held.book.revision, repeated: false };
  }

  private ownSongbook(id: string): ShowAtRevision {
    const held = this.rigs.get(id)!;
    held.book = { songbook: held.book.songbook, revision: held.book.revision + 1 };
    return this.read(id);
  }

  private async answered<T>(answer: () => T): Promise<T> {
    await Promise.resolve();
    const said = answer();
    if (this.lostAnswers > 0) {
      this.lostAnswers -= 1;
      throw new RefusedError(null, 'The server does not answer.');
    }
    return said;
  }

  /** What one tab talks to; `kept` is what its browser keeps when it closes. */
  ways(kept: { batches: readonly Batch[] } = { batches: [] }): Ways {
    return {
      readShow: (id) => this.answered(() => this.read(id)),
      sendBatch: (id, batch) => this.answered(() => this.apply(id, batch)),
      ownSongbook: (id) => this.answered(() => this.ownSongbook(id)),
      loadOutbox: () => Promise.resolve(kept.batches),
      saveOutbox: (_, batches) => ((kept.batches = batches), Promise.resolve()),
    };
  }

  open = (id: string, kept?: { batches: readonly Batch[] }): Promise<ShowStore> => ShowStore.open(this.read(id), this.ways(kept));
}

const settled = async () => {
  for (let i = 0; i < 60; i += 1) await Promise.resolve();
};
const song = Object.keys(demoShow().songbook.songs)[0];
const tempo = (store: ShowStore, value: number) => store.run(commands.setSong(store.get().show, song, 'tempo', value));
const rename = (store: ShowStore, name: string) => store.run(commands.renameRig(store.get().show, name));
/** Little, so that many runs are quick. */
const oneSong: Show = { ...emptyShow('rig', 'Rig'), songbook: { ...emptyShow('rig', 'Rig').songbook, songs: { [song]: { id: song, name: 'Song', order: 'i', tempo: null } } } };
const showOf = ({ rig, songbook }: Show): Show => ({ rig, songbook });

describe('one window', () => {
  test('an edit is there at once, saved soon, undone by name, and says nothing', async () => {
    const server = new Server();
    const store = await server.open('combo');
    rename(store, 'One');
    expect(store.get()).toMatchObject({ saving: 'saving', show: { rig: { name: 'One' } } });
    await settled();
    expect(store.get()).toMatchObject({ saving: 'saved', revision: 1, notice: null, refusal: null });
    store.undo();
    await settled();
    expect(server.read('combo')).toMatchObject({ revision: 2, rig: { name: demoShow().rig.name } });
    expect(store.get().redo).toHaveLength(1);
  });
  test('an answer lost on its way: the edit is sent again and is there once', async () => {
    jest.useFakeTimers();
    const server = new Server();
    const store = await server.open('combo');
    server.lostAnswers = 1;
    tempo(store, 99);
    await settled();
    expect(store.get().saving).toBe('waiting');
    jest.advanceTimersByTime(2000);
    await settled();
    expect(store.get()).toMatchObject({ saving: 'saved', revision: 1, notice: null });
    expect(server.read('combo')).toMatchObject({ revision: 1, songbookRevision: 1 });
    jest.useRealTimers();
  });
  test('what a closed tab could not send is sent by the next', async () => {
    const server = new Server();
    const kept: { batches: readonly Batch[] } = { batches: [] };
    server.lostAnswers = 0;
    const dead: Ways = { ...server.ways(kept), sendBatch: () => new Promise(() => undefined) };
    rename(await ShowStore.open(server.read('combo'), dead), 'Kept');
    await settled();
    expect(server.read('combo').revision).toBe(0);
    await server.open('combo', kept);
    await settled();
    expect(server.read('combo')).toMatchObject({ revision: 1, rig: { name: 'Kept' } });
    expect(kept.batches).toEqual([]);
  });
});

describe('two windows', () => {
  test('a song changed through the other rig is seen when one comes back, and undo still works', async () => {
    const server = new Server();
    const [combo, fly] = [await server.open('combo'), await server.open('fly')];
    rename(fly, 'Fly');
    await settled();
    tempo(combo, 99);
    await settled();
    expect(fly.get().show.songbook.songs[song].tempo).not.toBe(99);
    await fly.refresh();
    expect(fly.get()).toMatchObject({ notice: expect.stringContaining('elsewhere'), refusal: null, show: { songbook: { songs: { [song]: { tempo: 99 } } } } });
    fly.undo();
    await settled();
    expect(server.read('fly').rig.name).toBe(flyShow().rig.name);
    await combo.refresh();
    expect(combo.get()).toMatchObject({ notice: null });
  });
  test('the answer to an edit tells that the other wrote: what it wrote is read before one goes on', async () => {
    const server = new Server();
    const [combo, fly] = [await server.open('combo'), await server.open('fly')];
    tempo(combo, 99);
    await settled();
    rename(fly, 'Fly');
    await settled();
    expect(fly.get()).toMatchObject({ saving: 'saved', show: { rig: { name: 'Fly' }, songbook: { songs: { [song]: { tempo: 99 } } } }, sharedWith: ['River-boat combo rig'] });
    expect(showOf(fly.get().show)).toEqual(showOf(server.read('fly')));
  });
  test('both change one value: the first stands, the other is told what fell away', async () => {
    const server = new Server();
    const [mine, yours] = [await server.open('combo'), await server.open('combo')];
    rename(mine, 'Mine');
    await settled();
    rename(yours, 'Yours');
    tempo(yours, 77);
    await settled();
    expect(yours.get()).toMatchObject({ saving: 'saved', refusal: expect.stringMatching(/^Not saved: .*Yours/), show: { rig: { name: 'Mine' }, songbook: { songs: { [song]: { tempo: 77 } } } } });
    expect(server.read('combo')).toMatchObject({ revision: 2, songbook: { songs: { [song]: { tempo: 77 } } } });
  });
  test('a copy of its own: from then on the other is not followed', async () => {
    const server = new Server();
    const [combo, fly] = [await server.open('combo'), await server.open('fly')];
    tempo(combo, 99);
    await settled();
    expect(await fly.ownSongbook()).toBe(true);
    expect(fly.get()).toMatchObject({ sharedWith: [], show: { songbook: { songs: { [song]: { tempo: 99 } } } } });
    tempo(combo, 98);
    tempo(fly, 50);
    await settled();
    expect([server.read('combo'), server.read('fly')].map((at) => at.songbook.songs[song].tempo)).toEqual([98, 50]);
    expect(combo.get().refusal ?? fly.get().refusal).toBeNull();
  });
  test('a rig deleted in the other window: said so, and not asked for again and again', async () => {
    const server = new Server();
    const fly = await server.open('fly');
    server.delete('fly');
    rename(fly, 'Late');
    await settled();
    expect(fly.get()).toMatchObject({ saving: 'gone', refusal: expect.stringContaining('deleted elsewhere'), show: { rig: { name: 'Late' } } });
    tempo(fly, 70);
    await settled();
    expect(fly.get().saving).toBe('gone');
  });
  test('a server that is away is said where a copy was asked for', async () => {
    const server = new Server();
    const fly = await server.open('fly');
    server.lostAnswers = 1;
    expect(await fly.ownSongbook()).toBe(false);
    expect(fly.get().refusal).toContain('does not answer');
  });
});

test('law: whatever three windows do, in the end each shows what the server has, and every edit is there or told as lost', async () => {
  const act = fc.record({ window: fc.nat(2), does: fc.constantFrom('rename', 'tempo', 'undo', 'refresh', 'wait'), value: fc.integer({ min: 40, max: 200 }) });
  await fc.assert(
    fc.asyncProperty(fc.array(act, { maxLength: 24 }), async (acts) => {
      const server = new Server(oneSong, oneSong.rig);
      const windows = [await server.open('combo'), await server.open('combo'), await server.open('fly')];
      let edits = 0;
      let refused = 0;
      for (const window of windows) {
        let last: string | null = null;
        window.subscribe(() => {
          const { refusal } = window.get();
          if (refusal !== last && refusal) refused += 1;
          last = refusal;
        });
      }
      for (const { window, does, value } of acts) {
        const store = windows[window];
        if (does === 'wait') await settled();
        else if (does === 'refresh') void store.refresh();
        else if (does === 'undo') store.undo();
        else if (does === 'rename' ? rename(store, `Rig ${value}`) : tempo(store, value)) edits += 1;
      }
      await settled();
      for (const store of windows) {
        await store.refresh();
        await settled();
        expect(store.get().saving).toBe('saved');
        expect(showOf(store.get().show)).toEqual(showOf(server.read(store.id)));
        expect(store.get().revision).toBe(server.read(store.id).revision);
      }
      if (refused === 0) expect(server.read('combo').revision + server.read('fly').revision).toBeGreaterThanOrEqual(edits);
    }),
    { numRuns: 300 },
  );
});
