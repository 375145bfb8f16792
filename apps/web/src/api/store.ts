import { applySteps, type Batch, type Command, describeCommand, describeProblem, invertSteps, sameData, type Show, type Step } from '@yunta/core';
import type { ShowAtRevision } from '@yunta/contract';
import { loadOutbox, saveOutbox } from './outbox.ts';
import { ownSongbook, readShow, RefusedError, sendBatch } from './shows.ts';

/** Whom a store talks to: the server, and what keeps unsent edits when the tab is closed. A test brings its own. */
export interface Ways {
  readonly readShow: typeof readShow;
  readonly sendBatch: typeof sendBatch;
  readonly ownSongbook: typeof ownSongbook;
  readonly loadOutbox: typeof loadOutbox;
  readonly saveOutbox: typeof saveOutbox;
}

const ways: Ways = { readShow, sendBatch, ownSongbook, loadOutbox, saveOutbox };

/** `waiting`: the server does not answer; edits are kept here and sent when it does. `gone`: the rig was deleted elsewhere. */
export type Saving = 'saved' | 'saving' | 'waiting' | 'gone';

export interface EditState {
  readonly show: Show;
  readonly revision: number;
  readonly saving: Saving;
  /** Why the last edit or batch was refused, for people. */
  readonly refusal: string | null;
  /** What is worth saying though nothing is wrong. */
  readonly notice: string | null;
  /** Names of the other rigs that play from the same songbook. */
  readonly sharedWith: readonly string[];
  readonly undo: readonly Batch[];
  readonly redo: readonly Batch[];
}

/** One open show: edits are applied at once, kept until the server has them, and sent in order. */
export class ShowStore {
  private state: EditState;
  private outbox: readonly Batch[] = [];
  /** One talk with the server at a time: what it holds is only known between two. */
  private talking = false;
  private songbookRevision: number;
  private retry: ReturnType<typeof setTimeout> | null = null;
  private readonly listeners = new Set<() => void>();
  /** The last edits with the show that each was made on: what a follower of this show has missed. */
  private recent: readonly { readonly on: Show; readonly steps: readonly Step[] }[] = [];

  /** Others have written since this show was read. */
  private behind = false;

  private constructor(
    readonly id: string,
    at: ShowAtRevision,
    private readonly ways: Ways,
  ) {
    this.songbookRevision = at.songbookRevision;
    this.state = { show: { rig: at.rig, songbook: at.songbook }, revision: at.revision, saving: 'saved', refusal: null, notice: null, sharedWith: at.sharedWith, undo: [], redo: [] };
  }

  /** Opens a show and replays what an earlier tab could not send, where old values still match. */
  static async open(at: ShowAtRevision, by: Ways = ways): Promise<ShowStore> {
    const store = new ShowStore(at.id, at, by);
    for (const batch of await by.loadOutbox(at.id)) store.replay(batch);
    await store.keep();
    void store.flush();
    return store;
  }

  subscribe = (listener: () => void): (() => void) => {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  };

  get = (): EditState => this.state;

  /** Looks the whole show over once, so that the first edit need only look at what it touches. */
  warmUp(): void {
    applySteps(this.state.show, []);
  }

  /** Steps from an earlier show to this one; null where they are no longer known. */
  stepsSince(show: Show): readonly Step[] | null {
    if (show === this.state.show) return [];
    const at = this.recent.findIndex((one) => one.on === show);
    return at < 0 ? null : this.recent.slice(at).flatMap((one) => one.steps);
  }

  /** Makes an edit; false where the core refuses it (the reason is in the state). */
  run(command: Command | null): boolean {
    if (!command || command.steps.length === 0) return false;
    const batch: Batch = { id: crypto.randomUUID(), ...command };
    if (!this.applied(batch)) return false;
    this.change({ undo: [...this.state.undo, batch], redo: [] });
    return true;
  }

  undo(): void {
    const batch = this.state.undo.at(-1);
    if (batch && this.applied(inverse(batch))) this.change({ undo: this.state.undo.slice(0, -1), redo: [...this.state.redo, batch] });
  }

  redo(): void {
    const batch = this.state.redo.at(-1);
    if (batch && this.applied({ ...batch, id: crypto.randomUUID() })) this.change({ redo: this.state.redo.slice(0, -1), undo: [...this.state.undo, batch] });
  }

  /** Says why something typed is no edit; the show stays as it is. */
  refuse(reason: string): void {
    this.change({ refusal: reason });
  }

  tell(notice: string): void {
    this.change({ notice });
  }

  dismiss(): void {
    this.change({ refusal: null, notice: null });
  }

  private applied(batch: Batch): boolean {
    const result = applySteps(this.state.show, batch.steps);
    if (!result.ok) {
      this.change({ refusal: result.problems.slice(0, 3).map(describeProblem).join(' ') });
      return false;
    }
    this.outbox = [...this.outbox, batch];
    this.recent = [...this.recent.slice(-30), { on: this.state.show, steps: batch.steps }];
    this.change({ show: result.value, saving: 'saving', refusal: null, notice: null });
    void this.keep().then(() => this.flush());
    return true;
  }

  private replay(batch: Batch): void {
    const result = applySteps(this.state.show, batch.steps);
    if (!result.ok) return;
    this.outbox = [...this.outbox, batch];
    this.state = { ...this.state, show: result.value, saving: 'saving' };
  }

  private keep(): Promise<void> {
    return this.ways.saveOutbox(this.id, this.outbox).catch(() => undefined);
  }

  /** Asks whether something was changed elsewhere: in another window, or through another rig that shares the songbook. */
  async refresh(): Promise<void> {
    if (this.talking || this.outbox.length > 0) return;
    await this.talk(async () => {
      const at = await this.ways.readShow(this.id).catch(() => null);
      if (at && (at.revision !== this.state.revision || at.songbookRevision !== this.songbookRevision)) await this.take(at);
      else if (at && at.sharedWith.join() !== this.state.sharedWith.join()) this.change({ sharedWith: at.sharedWith });
    });
  }

  /** Takes the rig out of a shared songbook; it goes on with a copy. False where the server did not. */
  async ownSongbook(): Promise<boolean> {
    if (this.talking || this.outbox.length > 0) {
      this.refuse('Edits are still on their way. Try again when they are saved.');
      return false;
    }
    let done = false;
    await this.talk(async () => {
      try {
        const at = await this.ways.ownSongbook(this.id);
        if (at.revision !== this.state.revision || !sameData(at.songbook, this.state.show.songbook)) await this.take(at);
        this.songbookRevision = at.songbookRevision;
        this.change({ sharedWith: at.sharedWith });
        done = true;
      } catch (reason) {
        this.refuse(reason instanceof Error ? reason.message : String(reason));
      }
    });
    return done;
  }

  /** Whatever was edited during a talk is sent after it. */
  private async talk(about: () => Promise<void>): Promise<void> {
    this.talking = true;
    try {
      await about();
    } finally {
      this.talking = false;
    }
    if (this.outbox.length > 0 && !this.retry) void this.flush();
  }

  private async flush(): Promise<void> {
    if (this.talking || this.state.saving === 'gone' || (this.outbox.length === 0 && !this.behind)) return;
    await this.talk(async () => {
      try {
        while (this.outbox.length > 0) await this.sendFirst();
        if (this.behind) await this.take(await this.ways.readShow(this.id));
      } catch (reason) {
        await this.failed(reason);
      }
    });
  }

  private async sendFirst(): Promise<void> {
    const [batch] = this.outbox;
    const base = this.state.revision;
    const answer = await this.ways.sendBatch(this.id, { ...batch, base });
    const expected = this.songbookRevision + (batch.steps.some((step) => step.doc === 'songbook') ? 1 : 0);
    this.behind ||= answer.revision !== base + 1 || answer.songbookRevision !== expected;
    this.songbookRevision = answer.songbookRevision;
    this.outbox = this.outbox.slice(1);
    await this.keep();
    this.change({ revision: Math.max(answer.revision, base), saving: this.outbox.length > 0 ? 'saving' : 'saved' });
  }

  /** No answer: wait and try again, nothing is lost. A refusal: the edit cannot stand, and the page says what won. */
  private async failed(reason: unknown): Promise<void> {
    if (reason instanceof RefusedError && reason.details?.status === 404) {
      this.change({ saving: 'gone', refusal: 'This rig was deleted elsewhere. What is edited here is saved nowhere any more.' });
      return;
    }
    if (reason instanceof RefusedError && reason.details && reason.details.status < 500 && this.outbox.length > 0) {
      try {
        await this.take(await this.ways.readShow(this.id), { batch: this.outbox[0], why: reason.message });
        return;
      } catch {
        // The server went away meanwhile: asked again below.
      }
    }
    this.change({ saving: 'waiting' });
    this.retry ??= setTimeout(() => {
      this.retry = null;
      void this.flush();
    }, 2000);
  }

  /** Takes what the server has, puts the edits not yet sent on top where their old values still match, and says what fell away. */
  private async take(at: ShowAtRevision, refused?: { readonly batch: Batch; readonly why: string }): Promise<void> {
    const { show, kept, fallen } = putOn({ rig: at.rig, songbook: at.songbook }, this.outbox.filter((batch) => batch !== refused?.batch));
    const lost = [...(refused ? [refused.batch] : []), ...fallen].map((batch) => describeCommand(batch.command)).join('; ');
    this.recent = [];
    this.songbookRevision = at.songbookRevision;
    this.outbox = kept;
    this.behind = false;
    const said = lost === '' ? { notice: 'Changed elsewhere meanwhile. You see the newest.' } : { refusal: `Not saved: ${lost}. ${refused?.why ?? 'It was changed elsewhere meanwhile.'}`, undo: [], redo: [] };
    this.change({ show, revision: at.revision, saving: kept.length > 0 ? 'saving' : 'saved', sharedWith: at.sharedWith, ...said });
    await this.keep();
  }

  private change(part: Partial<EditState>): void {
    this.state = { ...this.state, ...part };
    for (const listener of this.listeners) listener();
  }
}

const inverse = (batch: Batch): Batch => ({ id: crypto.randomUUID(), command: { name: 'undo', facts: { of: describeCommand(batch.command) } }, steps: invertSteps(batch.steps) });

/** Edits put on a show in their order: those whose old values still match stay. */
function putOn(show: Show, edits: readonly Batch[]): { readonly show: Show; readonly kept: readonly Batch[]; readonly fallen: readonly Batch[] } {
  const kept: Batch[] = [];
  const fallen: Batch[] = [];
  let now = show;
  for (const batch of edits) {
    const result = applySteps(now, batch.steps);
    (result.ok ? kept : fallen).push(batch);
    if (result.ok) now = result.value;
  }
  return { show: now, kept, fallen };
}
