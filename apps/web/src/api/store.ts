import { applySteps, type Batch, type Command, describeCommand, describeProblem, invertSteps, type Show, type Step } from '@yunta/core';
import type { ShowAtRevision } from '@yunta/contract';
import { loadOutbox, saveOutbox } from './outbox.ts';
import { readShow, RefusedError, sendBatch } from './shows.ts';

/** `waiting`: the server does not answer; edits are kept here and sent when it does. */
export type Saving = 'saved' | 'saving' | 'waiting';

export interface EditState {
  readonly show: Show;
  readonly revision: number;
  readonly saving: Saving;
  /** Why the last edit or batch was refused, for people. */
  readonly refusal: string | null;
  /** What is worth saying though nothing is wrong. */
  readonly notice: string | null;
  readonly undo: readonly Batch[];
  readonly redo: readonly Batch[];
}

/** One open show: edits are applied at once, kept until the server has them, and sent in order. */
export class ShowStore {
  private state: EditState;
  private outbox: readonly Batch[] = [];
  private sending = false;
  private retry: ReturnType<typeof setTimeout> | null = null;
  private readonly listeners = new Set<() => void>();
  /** The last edits with the show that each was made on: what a follower of this show has missed. */
  private recent: readonly { readonly on: Show; readonly steps: readonly Step[] }[] = [];

  private constructor(readonly id: string, at: ShowAtRevision) {
    this.state = { show: { rig: at.rig, songbook: at.songbook }, revision: at.revision, saving: 'saved', refusal: null, notice: null, undo: [], redo: [] };
  }

  /** Opens a show and replays what an earlier tab could not send, where old values still match. */
  static async open(at: ShowAtRevision): Promise<ShowStore> {
    const store = new ShowStore(at.id, at);
    for (const batch of await loadOutbox(at.id)) store.replay(batch);
    await store.keep();
    void store.flush();
    return store;
  }

  subscribe = (listener: () => void): (() => void) => {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  };

  get = (): EditState => this.state;

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
    return saveOutbox(this.id, this.outbox).catch(() => undefined);
  }

  private async flush(): Promise<void> {
    if (this.sending) return;
    this.sending = true;
    try {
      while (this.outbox.length > 0) {
        const [batch] = this.outbox;
        const { revision } = await sendBatch(this.id, { ...batch, base: this.state.revision });
        this.outbox = this.outbox.slice(1);
        await this.keep();
        this.change({ revision: Math.max(revision, this.state.revision), saving: this.outbox.length > 0 ? 'saving' : 'saved' });
      }
    } catch (reason) {
      await this.failed(reason);
    } finally {
      this.sending = false;
    }
  }

  /** No answer: wait and try again, nothing is lost. A refusal: the edit cannot stand, and the page says what won. */
  private async failed(reason: unknown): Promise<void> {
    if (reason instanceof RefusedError && reason.details && reason.details.status < 500) {
      try {
        await this.takeOver(reason.message);
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
  private async takeOver(why: string): Promise<void> {
    const at = await readShow(this.id);
    this.recent = [];
    let show: Show = { rig: at.rig, songbook: at.songbook };
    const kept: Batch[] = [];
    const fallen = [this.outbox[0]];
    for (const batch of this.outbox.slice(1)) {
      const result = applySteps(show, batch.steps);
      if (result.ok) {
        show = result.value;
        kept.push(batch);
      } else fallen.push(batch);
    }
    this.outbox = kept;
    await this.keep();
    const lost = fallen.map((batch) => describeCommand(batch.command)).join('; ');
    this.change({ show, revision: at.revision, saving: kept.length > 0 ? 'saving' : 'saved', refusal: `Not saved: ${lost}. ${why}`, undo: [], redo: [] });
    if (kept.length > 0) setTimeout(() => void this.flush(), 0);
  }

  private change(part: Partial<EditState>): void {
    this.state = { ...this.state, ...part };
    for (const listener of this.listeners) listener();
  }
}

const inverse = (batch: Batch): Batch => ({ id: crypto.randomUUID(), command: { name: 'undo', facts: { of: describeCommand(batch.command) } }, steps: invertSteps(batch.steps) });
