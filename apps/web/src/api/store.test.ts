import { describe, expect, jest, test } from '@jest/globals';
import {
  addVariant,
  applySteps,
  commands,
  demoShow,
  describeProblem,
  emptyShow,
  flyShow,
  removeVariant,
  type Rig,
  type Show,
  sharingProblems,
  type Songbook,
} from '@yunta/core';
import type { AppliedBatch, SentBatch, ShowAtRevision } from '@yunta/contract';
import fc from 'fast-check';
import { RefusedError } from './shows.ts';
import { editKey, type KeptEdit, type Outbox, readEdit, readStacks, type Storage } from './outbox.ts';
import { ShowStore, type Transport } from './store.ts';

/** The server as the store sees it: two rigs over one songbook, each batch once, and a wire that a test can cut. */
class Server {
  private readonly rigs = new Map<
    string,
    { rig: Rig; revision: number; book: { songbook: Songbook; revision: number } }
  >();
  private readonly applied = new Map<string, number>();
  /** How many of the next answers get lost on their way back. */
  lostAnswers = 0;
  lostAs: 'silence' | 'database-away' = 'silence';
  /** It fails on an edit that names this. */
  failsOn = '';

  constructor({ rig, songbook }: Show = demoShow(), fly: Rig = flyShow().rig) {
    const book = { songbook, revision: 0 };
    this.rigs.set('combo', { rig, revision: 0, book });
    this.rigs.set('fly', { rig: fly, revision: 0, book });
  }

  has = (batch: string): boolean => this.applied.has(batch);

  delete(id: string): void {
    this.rigs.delete(id);
  }

  private held(id: string) {
    const held = this.rigs.get(id);
    if (!held)
      throw new RefusedError(
        { type: 'urn:x', title: 'There is no rig.', status: 404, code: 'not-found', errors: [] },
        'There is no rig.',
      );
    return held;
  }

  read(id: string): ShowAtRevision {
    const held = this.held(id);
    const others = [...this.rigs.values()].filter((other) => other !== held && other.book === held.book);
    return {
      id,
      revision: held.revision,
      songbookRevision: held.book.revision,
      sharedWith: others.map((other) => other.rig.name),
      rig: held.rig,
      songbook: held.book.songbook,
    };
  }

  private apply(id: string, { base, ...batch }: SentBatch): AppliedBatch {
    const held = this.held(id);
    if (this.failsOn !== '' && JSON.stringify(batch).includes(this.failsOn))
      throw new RefusedError(
        { type: 'urn:x', title: 'Something went wrong.', status: 500, code: 'fault', id: '1a2b3c4d', errors: [] },
        'Something went wrong.',
      );
    const before = this.applied.get(batch.id);
    if (before !== undefined) return { revision: before, songbookRevision: held.book.revision, repeated: true };
    expect(base).toBeLessThanOrEqual(held.revision);
    expect(batch.steps.length).toBeGreaterThan(0);
    const result = applySteps({ rig: held.rig, songbook: held.book.songbook }, batch.steps);
    const others = [...this.rigs.values()]
      .filter((other) => other !== held && other.book === held.book)
      .map((other) => other.rig);
    const problems = result.ok ? sharingProblems(held.book.songbook, result.value.songbook, others) : result.problems;
    if (!result.ok || problems.length > 0)
      throw new RefusedError(
        { type: 'urn:x', title: describeProblem(problems[0]), status: 409, code: problems[0].code, errors: problems },
        describeProblem(problems[0]),
      );
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
      if (this.lostAs === 'database-away')
        throw new RefusedError(
          { type: 'urn:x', title: 'The database does not answer.', status: 503, code: 'database-away', errors: [] },
          'The database does not answer.',
        );
      throw new RefusedError(null, 'The server does not answer.');
    }
    return said;
  }

  /** What one window talks to; `browser` is what its browser keeps and what windows of it tell each other. */
  transport(browser = new FakeBrowser()): Transport {
    return {
      readShow: (id) => this.answered(() => this.read(id)),
      sendBatch: (id, batch) => this.answered(() => this.apply(id, batch)),
      ownSongbook: (id) => this.answered(() => this.ownSongbook(id)),
      storage: browser.storage(),
      windows: browser.windows(),
    };
  }

  open = (id: string, browser?: FakeBrowser): Promise<ShowStore> =>
    ShowStore.open(this.read(id), this.transport(browser));
}

/** What windows of one browser share: records, and a channel on which nobody hears themselves. */
class FakeBrowser {
  readonly records = new Map<string, unknown>();
  readonly shows = new Map<string, ShowAtRevision>();
  readonly undos = new Map<string, unknown>();
  private readonly ears: { heard: (rig: string) => void; from: object }[] = [];
  isBroken = false;

  storage(): Storage {
    const working = <T>(work: () => T): Promise<T> =>
      this.isBroken ? Promise.reject(new Error('no storage')) : Promise.resolve().then(work);
    return {
      load: (rig) =>
        working((): Outbox => {
          const found = [...this.records]
            .filter(([key]) => key.startsWith(`edit/${rig}/`))
            .sort(([a], [b]) => (a < b ? -1 : 1));
          const edits = found.flatMap(([key, data]) => readEdit(key, data) ?? []);
          for (const [key, data] of found.filter((item) => !readEdit(...item))) {
            this.records.delete(key);
            this.records.set(`unreadable/${key}`, data);
          }
          return { edits, unreadable: found.length - edits.length };
        }),
      put: ({ key, ...data }) => working(() => void this.records.set(key, JSON.parse(JSON.stringify(data)))),
      remove: (key) => working(() => void this.records.delete(key)),
      loadShow: (rig) => working(() => this.shows.get(rig) ?? null),
      keepShow: (at) => working(() => void this.shows.set(at.id, at)),
      loadUndo: (rig) => working(() => readStacks(this.undos.get(rig))),
      keepUndo: (rig, stacks) => working(() => void this.undos.set(rig, JSON.parse(JSON.stringify(stacks)))),
    };
  }

  windows(): Transport['windows'] {
    const from = {};
    return {
      announce: (rig) => this.ears.filter((ear) => ear.from !== from).forEach(({ heard }) => heard(rig)),
      listen: (heard) => {
        const ear = { heard, from };
        this.ears.push(ear);
        return () => void this.ears.splice(this.ears.indexOf(ear), 1);
      },
    };
  }

  /** Edits of a rig that wait here. */
  waiting = (rig: string): readonly KeptEdit[] =>
    [...this.records].flatMap(([key, data]) => (key.startsWith(`edit/${rig}/`) ? (readEdit(key, data) ?? []) : []));
}

const settled = async () => {
  for (let i = 0; i < 60; i += 1) await Promise.resolve();
};
const song = Object.keys(demoShow().songbook.songs)[0];
const tempo = (store: ShowStore, value: number) => store.run(commands.setSong(store.get().show, song, 'tempo', value));
const rename = (store: ShowStore, name: string) => store.run(commands.renameRig(store.get().show, name));
/** Little, so that many runs are quick. */
const oneSong: Show = {
  ...emptyShow('rig', 'Rig'),
  songbook: {
    ...emptyShow('rig', 'Rig').songbook,
    songs: { [song]: { id: song, name: 'Song', order: 'i', tempo: null } },
  },
};
const showOf = ({ rig, songbook }: Show): Show => ({ rig, songbook });

describe('a variant that is looked at', () => {
  const withVariant = async (server: Server) => {
    const store = await server.open('combo');
    store.runOnBase(addVariant(store.get().base, 'tonight', 'Tonight'));
    store.chooseVariant('tonight');
    return store;
  };
  const channel = (show: Show) => show.rig.devices.echo.channel;

  test('is what is seen and edited; the rig itself stays, and the server holds both', async () => {
    const server = new Server();
    const store = await withVariant(server);
    const { channel: before } = demoShow().rig.devices.echo;
    store.run(commands.setDevice(store.get().show, 'echo', 'channel', 9 as never));
    expect([channel(store.get().show), channel(store.get().base)]).toEqual([9, before]);
    await settled();
    expect(store.get().saving).toBe('saved');
    expect(server.read('combo').rig.variants!.tonight.steps).toHaveLength(1);
    store.chooseVariant(null);
    expect(channel(store.get().show)).toBe(before);
    expect(store.get().show).toBe(store.get().base);
  });

  test('its edits are undone and redone by name, and a follower is told the steps', async () => {
    const store = await withVariant(new Server());
    const seen = store.get().show;
    store.run(commands.setDevice(seen, 'echo', 'channel', 9 as never));
    expect(store.get().undo.at(-1)!.command.facts.variant).toBe('Tonight');
    expect(store.stepsSince(seen)).toEqual([
      { doc: 'rig', op: 'set', at: ['devices', 'echo', 'channel'], value: 9, old: channel(seen) },
    ]);
    store.undo();
    expect(channel(store.get().show)).toBe(channel(seen));
    store.redo();
    expect(channel(store.get().show)).toBe(9);
  });

  test('what is refused in it changes nothing', async () => {
    const store = await withVariant(new Server());
    const before = store.get();
    expect(store.attempt(commands.setDevice(before.show, 'echo', 'channel', 99 as never))).toMatch(/not allowed/);
    expect(store.get().show).toBe(before.show);
  });

  test('a song edited in it is edited for all', async () => {
    const server = new Server();
    const store = await withVariant(server);
    tempo(store, 99);
    await settled();
    expect(server.read('combo').songbook.songs[song].tempo).toBe(99);
    expect(server.read('combo').rig.variants!.tonight.steps).toEqual([]);
  });

  test('another window edits the rig under it: it follows, and where they part that is told', async () => {
    const server = new Server();
    const store = await withVariant(server);
    store.run(commands.setDevice(store.get().show, 'echo', 'channel', 9 as never));
    await settled();
    const other = await server.open('combo');
    other.run(commands.setDevice(other.get().show, 'echo', 'channel', 7 as never));
    other.run(commands.setDevice(other.get().show, 'echo', 'name', 'Echo, long'));
    await settled();
    await store.refresh();
    expect(channel(store.get().show)).toBe(9);
    expect(store.get().show.rig.devices.echo.name).toBe('Echo, long');
    expect(store.get().conflicts).toMatchObject([{ kind: 'changed', base: 7, tonight: 9 }]);
  });

  test('one that was removed elsewhere is left for the rig itself', async () => {
    const server = new Server();
    const store = await withVariant(server);
    await settled();
    const other = await server.open('combo');
    other.runOnBase(removeVariant(other.get().base, 'tonight'));
    await settled();
    await store.refresh();
    expect(store.get().variant).toBeNull();
    expect(store.get().show).toBe(store.get().base);
  });
});

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
  test('after a reload what was done can be undone and redone, in its order; what cannot be read is left out', async () => {
    const [server, browser] = [new Server(), new FakeBrowser()];
    const store = await server.open('combo', browser);
    const { name } = store.get().show.rig;
    store.run(commands.renameRig(store.get().show, 'One'));
    store.run(commands.renameRig(store.get().show, 'Two'));
    store.run(commands.renameRig(store.get().show, 'Three'));
    store.undo();
    await settled();
    expect(store.get().saving).toBe('saved');
    const again = await server.open('combo', browser);
    expect([again.get().undo.length, again.get().redo.length]).toEqual([2, 1]);
    again.redo();
    expect(again.get().show.rig.name).toBe('Three');
    for (let i = 0; i < 3; i += 1) again.undo();
    expect([again.get().show.rig.name, again.get().undo]).toEqual([name, []]);
    await settled();
    expect(again.get().saving).toBe('saved');
    const kept = browser.undos.get('combo') as { redo: unknown[] };
    browser.undos.set('combo', { undo: 'x', redo: [{ odd: 1 }, ...kept.redo.slice(1)] });
    const third = await server.open('combo', browser);
    expect([third.get().undo.length, third.get().redo.length]).toEqual([0, 2]);
  });

  test('an edit of another window that stands in the way of an undo after a reload: said, and nothing is lost', async () => {
    const [server, browser] = [new Server(), new FakeBrowser()];
    const store = await server.open('combo', browser);
    store.run(commands.renameRig(store.get().show, 'One'));
    await settled();
    expect(store.get().saving).toBe('saved');
    const other = await server.open('combo');
    other.run(commands.renameRig(other.get().show, 'Theirs'));
    await settled();
    expect(other.get().saving).toBe('saved');
    const again = await server.open('combo', browser);
    again.undo();
    expect([again.get().show.rig.name, again.get().undo.length]).toEqual(['Theirs', 1]);
    expect(again.get().refusal).toContain('it is now');
  });

  test('in a page that is being left, where requests fail at once and no timer starts, it is tried once', async () => {
    const server = new Server();
    const store = await server.open('combo');
    const noTimer = jest.spyOn(globalThis, 'setTimeout').mockReturnValue(0 as never);
    try {
      server.lostAnswers = 20;
      tempo(store, 99);
      await settled();
      expect(server.lostAnswers).toBe(19);
      expect(store.get().saving).toBe('waiting');
    } finally {
      noTimer.mockRestore();
    }
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
  test('what a closed window could not send is sent by the next', async () => {
    const server = new Server();
    const browser = new FakeBrowser();
    rename(
      await ShowStore.open(server.read('combo'), {
        ...server.transport(browser),
        sendBatch: () => new Promise(() => undefined),
      }),
      'Kept',
    );
    await settled();
    expect(server.read('combo').revision).toBe(0);
    await server.open('combo', browser);
    await settled();
    expect(server.read('combo')).toMatchObject({ revision: 1, rig: { name: 'Kept' } });
    expect(browser.records.size).toBe(0);
  });
  test('an edit that changes nothing is not sent, and is no failure', async () => {
    const server = new Server();
    const store = await server.open('combo');
    expect(rename(store, store.get().show.rig.name)).toBe(true);
    await settled();
    expect(store.get()).toMatchObject({ saving: 'saved', revision: 0, undo: [] });
  });
  test('a name is kept in composed form here too', async () => {
    const server = new Server();
    const store = await server.open('combo');
    rename(store, 'Cafe\u0301');
    await settled();
    expect([store.get().show.rig.name, server.read('combo').rig.name]).toEqual(['Caf\u00e9', 'Caf\u00e9']);
  });
  test('too much for one edit is refused here, and nothing is stuck', async () => {
    const server = new Server();
    const store = await server.open('combo');
    const params = Object.fromEntries(
      Array.from({ length: 50 }, (_, i) => [`w${i}`, { id: `w${i}`, rule: 'x', at: {}, reason: 'y'.repeat(500) }]),
    );
    const steps = Array.from({ length: 90 }, (_, i) => ({
      doc: 'rig' as const,
      op: 'set' as const,
      at: ['waivers'],
      value: { ...params, [`n${i}`]: { id: `n${i}`, rule: 'x', at: {}, reason: 'z' } },
      ...(i === 0 ? {} : { old: { ...params, [`n${i - 1}`]: { id: `n${i - 1}`, rule: 'x', at: {}, reason: 'z' } } }),
    }));
    const first = { ...steps[0], ...(store.get().show.rig.waivers ? { old: store.get().show.rig.waivers } : {}) };
    expect(store.run({ command: { name: 'rename', facts: { name: 'x' } }, steps: [first, ...steps.slice(1)] })).toBe(
      false,
    );
    expect(store.get().refusal).toContain('too much for one edit');
    rename(store, 'After');
    await settled();
    expect(store.get()).toMatchObject({ saving: 'saved', refusal: null });
  });
  test('an edit on which the server fails each time is set aside after three tries, and those after it are saved', async () => {
    jest.useFakeTimers();
    const server = new Server();
    const store = await server.open('combo');
    server.failsOn = 'Cursed';
    rename(store, 'Cursed');
    tempo(store, 99);
    for (let i = 0; i < 4; i += 1) {
      await settled();
      jest.advanceTimersByTime(2000);
    }
    await settled();
    jest.useRealTimers();
    expect(store.get()).toMatchObject({
      saving: 'saved',
      aside: [{ words: 'Rename to Cursed', why: expect.stringContaining('failed on it 3 times') }],
    });
    expect(server.read('combo')).toMatchObject({
      revision: 1,
      rig: { name: demoShow().rig.name },
      songbook: { songs: { [song]: { tempo: 99 } } },
    });
    expect(showOf(store.get().show)).toEqual(showOf(server.read('combo')));
  });
  test('a database that is away only makes it wait, however long', async () => {
    jest.useFakeTimers();
    const server = new Server();
    const store = await server.open('combo');
    server.lostAnswers = 6;
    server.lostAs = 'database-away';
    rename(store, 'Patient');
    for (let i = 0; i < 8; i += 1) {
      await settled();
      jest.advanceTimersByTime(2000);
    }
    await settled();
    jest.useRealTimers();
    expect(store.get()).toMatchObject({ saving: 'saved', aside: [], show: { rig: { name: 'Patient' } } });
  });
});

describe('what this browser keeps', () => {
  /** A window that was closed before the server took its edits. */
  const closed = async (
    server: Server,
    browser: FakeBrowser,
    ...edits: readonly ((store: ShowStore) => unknown)[]
  ): Promise<void> => {
    const store = await ShowStore.open(server.read('combo'), {
      ...server.transport(browser),
      sendBatch: () => new Promise(() => undefined),
    });
    for (const edit of edits) edit(store);
    await settled();
  };

  test('an unsent edit whose field changed meanwhile is a conflict on reopening: it stays until somebody decides', async () => {
    const server = new Server();
    const browser = new FakeBrowser();
    await closed(
      server,
      browser,
      (store) => rename(store, 'Mine'),
      (store) => tempo(store, 77),
    );
    rename(await server.open('combo'), 'Theirs');
    await settled();
    const store = await server.open('combo', browser);
    await settled();
    expect(store.get()).toMatchObject({
      saving: 'saved',
      show: { rig: { name: 'Theirs' }, songbook: { songs: { [song]: { tempo: 77 } } } },
      aside: [{ words: 'Rename to Mine', why: expect.stringContaining('"Theirs"') }],
    });
    const again = await server.open('combo', browser);
    await settled();
    expect(again.get().aside).toEqual(store.get().aside);
    again.applyAside(again.get().aside[0].key);
    await settled();
    expect(again.get()).toMatchObject({ saving: 'saved', aside: [], show: { rig: { name: 'Mine' } } });
    expect(server.read('combo').rig.name).toBe('Mine');
    expect(browser.records.size).toBe(0);
  });
  test('one that is given up is gone, here and in the other windows', async () => {
    const server = new Server();
    const browser = new FakeBrowser();
    await closed(server, browser, (store) => rename(store, 'Mine'));
    rename(await server.open('combo'), 'Theirs');
    await settled();
    const [store, other] = [await server.open('combo', browser), await server.open('combo', browser)];
    other.follow();
    await settled();
    expect([store.get().aside, other.get().aside].map((aside) => aside.length)).toEqual([1, 1]);
    store.discardAside(store.get().aside[0].key);
    await settled();
    expect([store.get().aside, other.get().aside, [...browser.records]]).toEqual([[], [], []]);
  });
  test('one that the server had taken, its answer lost with the window, is no conflict', async () => {
    const server = new Server();
    const browser = new FakeBrowser();
    const transport = server.transport(browser);
    const deaf = await ShowStore.open(server.read('combo'), {
      ...transport,
      sendBatch: (id, batch) => transport.sendBatch(id, batch).then(() => new Promise(() => undefined)),
    });
    rename(deaf, 'Taken');
    await settled();
    rename(await server.open('combo'), 'Later');
    await settled();
    expect(browser.waiting('combo')).toHaveLength(1);
    const store = await server.open('combo', browser);
    await settled();
    expect(store.get()).toMatchObject({ saving: 'saved', aside: [], show: { rig: { name: 'Later' } } });
    expect(browser.waiting('combo')).toEqual([]);
    expect(server.read('combo').revision).toBe(2);
  });
  test('edits of two windows that are closed while the server is away are all there', async () => {
    const server = new Server();
    const browser = new FakeBrowser();
    await closed(server, browser, (store) => rename(store, 'Name'));
    await closed(server, browser, (store) => tempo(store, 88));
    await server.open('combo', browser);
    await settled();
    expect(server.read('combo')).toMatchObject({
      revision: 2,
      rig: { name: 'Name' },
      songbook: { songs: { [song]: { tempo: 88 } } },
    });
  });
  test.each([
    ['nothing', null],
    ['a number', 7],
    ['no batch', { steps: [] }],
    [
      'a batch of another shape',
      { batch: { id: 'x', command: { name: 'x', facts: {} }, steps: [{ doc: 'rig', op: 'dance', at: ['name'] }] } },
    ],
    ['a list', [1, 2]],
  ])('a record that is %s is put aside and told, and the others are sent', async (_, data) => {
    const server = new Server();
    const browser = new FakeBrowser();
    await closed(server, browser, (store) => rename(store, 'Good'));
    browser.records.set('edit/combo/000000000000001-000001/bad', data);
    const store = await server.open('combo', browser);
    expect(store.get().notice).toMatch(/1 unsent edit .* could not be read/);
    await settled();
    expect(server.read('combo').rig.name).toBe('Good');
    expect([...browser.records.keys()]).toEqual(['unreadable/edit/combo/000000000000001-000001/bad']);
  });
  test('a browser that keeps nothing: the rig opens, says so, and edits are saved', async () => {
    const server = new Server();
    const browser = new FakeBrowser();
    browser.isBroken = true;
    const store = await server.open('combo', browser);
    expect(store.get().keeps).toBe(false);
    rename(store, 'Bare');
    await settled();
    expect(store.get()).toMatchObject({ saving: 'saved', keeps: false });
    expect(server.read('combo').rig.name).toBe('Bare');
  });
  test('while the server is away the rig opens as it was last seen, and what is edited is sent when it is back', async () => {
    jest.useFakeTimers();
    const server = new Server();
    const browser = new FakeBrowser();
    rename(await server.open('combo', browser), 'Seen');
    await settled();
    jest.advanceTimersByTime(1000);
    await settled();
    server.lostAnswers = 4;
    const store = await ShowStore.find('combo', server.transport(browser));
    expect(store.get()).toMatchObject({
      saving: 'waiting',
      notice: expect.stringContaining('as this browser last saw it'),
      show: { rig: { name: 'Seen' } },
    });
    tempo(store, 71);
    rename(await server.open('combo'), 'Meanwhile');
    for (let i = 0; i < 6; i += 1) {
      await settled();
      jest.advanceTimersByTime(2000);
    }
    await settled();
    jest.useRealTimers();
    expect(store.get()).toMatchObject({
      saving: 'saved',
      show: { rig: { name: 'Meanwhile' }, songbook: { songs: { [song]: { tempo: 71 } } } },
    });
    server.lostAnswers = 1;
    await expect(ShowStore.find('fly', server.transport(browser))).rejects.toThrow('does not answer');
    await expect(ShowStore.find('nowhere', server.transport(browser))).rejects.toThrow('There is no rig');
  });
  test('keys sort in the order of the edits', () => {
    const batch = { id: 'b', command: { name: 'x', facts: {} }, steps: [] };
    const keys = [
      editKey('r', batch, 1, 9),
      editKey('r', batch, 2, 9),
      editKey('r', batch, 1, 10),
      editKey('r', batch, 1, 1_764_201_600_000),
    ];
    expect([...keys].sort()).toEqual(keys);
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
    expect(fly.get()).toMatchObject({
      notice: expect.stringContaining('elsewhere'),
      refusal: null,
      show: { songbook: { songs: { [song]: { tempo: 99 } } } },
    });
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
    expect(fly.get()).toMatchObject({
      saving: 'saved',
      show: { rig: { name: 'Fly' }, songbook: { songs: { [song]: { tempo: 99 } } } },
      sharedWith: ['River-boat combo rig'],
    });
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
    expect(yours.get()).toMatchObject({
      saving: 'saved',
      aside: [{ words: 'Rename to Yours', why: expect.stringContaining('"Mine"') }],
      show: { rig: { name: 'Mine' }, songbook: { songs: { [song]: { tempo: 77 } } } },
    });
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
    expect(fly.get()).toMatchObject({
      saving: 'gone',
      refusal: expect.stringContaining('deleted elsewhere'),
      show: { rig: { name: 'Late' } },
    });
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

test('law: whatever windows of two browsers do, opened and closed, each in the end shows what the server has, and every edit is there or set aside', async () => {
  const act = fc.record({
    window: fc.nat(3),
    does: fc.constantFrom('rename', 'tempo', 'undo', 'refresh', 'wait', 'reopen', 'lose'),
    value: fc.integer({ min: 40, max: 200 }),
  });
  let asides = 0;
  await fc.assert(
    fc.asyncProperty(fc.array(act, { maxLength: 24 }), async (acts) => {
      const server = new Server(oneSong, oneSong.rig);
      const browsers = [new FakeBrowser(), new FakeBrowser()];
      const open = async (n: number) => {
        const store = await server.open(n === 3 ? 'fly' : 'combo', browsers[n % 2]);
        store.follow();
        return store;
      };
      const windows = await Promise.all([0, 1, 2, 3].map(open));
      const made = new Set<string>();
      const edits = (store: ShowStore): void => {
        for (const { id } of [...store.get().undo, ...store.get().redo]) made.add(id);
      };
      for (const { window, does, value } of acts) {
        const store = windows[window];
        if (does === 'wait') await settled();
        else if (does === 'refresh') void store.refresh();
        else if (does === 'undo') store.undo();
        else if (does === 'reopen') windows[window] = await open(window);
        else if (does === 'lose') server.lostAnswers += 1;
        else if (does === 'rename') rename(store, `Rig ${value}`);
        else tempo(store, value);
        edits(store);
      }
      server.lostAnswers = 0;
      await settled();
      const last = await Promise.all([0, 1, 2, 3].map(open));
      await settled();
      for (const store of last) {
        await store.refresh();
        await settled();
        expect(store.get().saving).toBe('saved');
        expect(showOf(store.get().show)).toEqual(showOf(server.read(store.id)));
        expect(store.get().revision).toBe(server.read(store.id).revision);
      }
      const kept = browsers.flatMap((browser) => [...browser.waiting('combo'), ...browser.waiting('fly')]);
      expect(kept.every(({ why }) => why !== undefined)).toBe(true);
      asides += kept.length;
      const set = new Set(kept.map(({ batch }) => batch.id));
      for (const id of made) expect(server.has(id) || set.has(id)).toBe(true);
    }),
    { numRuns: 300, seed: 20261127 },
  );
  expect(asides).toBeGreaterThan(50);
});
