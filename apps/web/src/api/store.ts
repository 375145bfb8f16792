import {
  applySteps,
  type Batch,
  batchLimits,
  type Command,
  type Conflict,
  describeCommand,
  describeProblem,
  editVariant,
  invertSteps,
  normalised,
  type Problem,
  rebaseSteps,
  sameData,
  type Show,
  type Step,
  variantNamed,
  variantOf,
  withFollowers,
} from '@yunta/core';
import type { ShowAtRevision } from '@yunta/contract';
import { browserStorage, editKey, type KeptEdit, madeAt, mostUndone, type Storage } from './outbox.ts';
import { ownSongbook, readShow, RefusedError, sendBatch } from './shows.ts';
import { browserWindows, everyRig, type Windows } from './windows.ts';

/** Whom a store talks to: the server, what this browser keeps, and its other windows. A test brings its own. */
export interface Transport {
  readonly readShow: typeof readShow;
  readonly sendBatch: typeof sendBatch;
  readonly ownSongbook: typeof ownSongbook;
  readonly storage: Storage;
  readonly windows: Windows;
}

export const browserTransport = (): Transport => ({
  readShow,
  sendBatch,
  ownSongbook,
  storage: browserStorage(),
  windows: browserWindows(),
});

/**
 * `waiting`: the server does not answer; edits are kept here and sent when it does. `gone`: the rig was deleted
 * elsewhere.
 */
export type Saving = 'saved' | 'saving' | 'waiting' | 'gone';

/** An edit that could not be saved. It stays until somebody decides. */
export interface SetAside {
  readonly key: string;
  readonly words: string;
  /** The value that it would set, where it is one value. */
  readonly value: string | null;
  readonly why: string;
}

export interface EditState {
  /** What is looked at and edited: the rig itself, or one of its variants. */
  readonly show: Show;
  /** The rig itself: what is saved. */
  readonly base: Show;
  /** The variant that is looked at; null: the rig itself. */
  readonly variant: string | null;
  /** Where that variant and the rig have parted. */
  readonly conflicts: readonly Conflict[];
  readonly revision: number;
  readonly saving: Saving;
  /** Why the last edit was refused, for people. */
  readonly refusal: string | null;
  /** What is worth saying though nothing is wrong. */
  readonly notice: string | null;
  /** Edits that could not be saved, oldest first. */
  readonly aside: readonly SetAside[];
  /** False where this browser keeps nothing: what is not saved is lost with the window. */
  readonly keeps: boolean;
  /** Names of the other rigs that play from the same songbook. */
  readonly sharedWith: readonly string[];
  readonly undo: readonly Batch[];
  readonly redo: readonly Batch[];
}

/**
 * An edit on its way. `shown`: the show holds it already; else it no longer fitted, and the server has the last word.
 */
interface Outgoing extends KeptEdit {
  readonly shown: boolean;
}

/** So often may the server fail on one edit before it is set aside. */
const mostFaults = 3;
const retryAfter = 2000;
const keepAfter = 1000;
/** What another window made is left to it for so long, ms. */
const othersTurn = 15_000;

/** One open show: edits are applied at once, kept until the server has them, and sent in order. */
export class ShowStore {
  private state: EditState;
  private outbox: readonly Outgoing[] = [];
  private aside: readonly KeptEdit[] = [];
  /** One exchange with the server at a time: what it holds is only known between two. */
  private talking = false;
  private songbookRevision: number;
  private keeping: ReturnType<typeof setTimeout> | null = null;
  private retry: ReturnType<typeof setTimeout> | null = null;
  private faults = { id: '', count: 0 };
  /** Edits that this window made. */
  private made = 0;
  private readonly listeners = new Set<() => void>();
  /** The last edits with the show that each was made on: what a follower of this show has missed. */
  private recent: readonly { readonly on: Show; readonly steps: readonly Step[] }[] = [];

  /** Others have written since this show was read. */
  private behind = false;

  private constructor(
    readonly id: string,
    at: ShowAtRevision,
    private readonly transport: Transport,
  ) {
    this.songbookRevision = at.songbookRevision;
    this.state = {
      ...baseOf({ rig: at.rig, songbook: at.songbook }, null),
      revision: at.revision,
      saving: 'saved',
      refusal: null,
      notice: null,
      aside: [],
      keeps: true,
      sharedWith: at.sharedWith,
      undo: [],
      redo: [],
    };
  }

  /** Opens a show and puts on top what an earlier window could not send. */
  static async open(at: ShowAtRevision, transport: Transport): Promise<ShowStore> {
    const store = new ShowStore(at.id, at, transport);
    await store.adopt();
    await store.recallUndo();
    void store.flush();
    store.keepShow();
    return store;
  }

  /**
   * Reads a show and opens it; while the server is away, as this browser last saw it. Rejects where neither is to be
   * had, or the server says that there is none.
   */
  static async find(id: string, transport: Transport): Promise<ShowStore> {
    try {
      return await ShowStore.open(await transport.readShow(id), transport);
    } catch (reason) {
      const kept = isAway(reason) ? await transport.storage.loadShow(id).catch(() => null) : null;
      if (!kept) throw reason;
      const store = new ShowStore(id, kept, transport);
      await store.adopt();
      await store.recallUndo();
      store.behind = true;
      store.change({ notice: 'The server does not answer. You see the rig as this browser last saw it.' });
      await store.failed(reason);
      return store;
    }
  }

  subscribe = (listener: () => void): (() => void) => {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  };

  get = (): EditState => this.state;

  /** Follows the other windows of this browser until told to stop. */
  follow(): () => void {
    return this.transport.windows.listen((rig) => {
      if (rig === this.id) void this.reloadAside();
      if (rig === this.id || rig === everyRig || this.state.sharedWith.length > 0) void this.refresh();
    });
  }

  /** Looks the whole show over once, so that the first edit need only look at what it touches. */
  warmUp(): void {
    applySteps(this.state.base, []);
  }

  /** Steps from an earlier show to this one; null where they are no longer known. */
  stepsSince(show: Show): readonly Step[] | null {
    if (show === this.state.show) return [];
    const at = this.recent.findIndex((item) => item.on === show);
    return at < 0 ? null : this.recent.slice(at).flatMap((item) => item.steps);
  }

  /** Makes an edit; false where the core refuses it (the reason is in the state). One that changes nothing is none. */
  run(command: Command | null): boolean {
    if (!command || command.steps.length === 0) return false;
    const reason = this.attempt(command);
    if (reason !== null) this.refuse(reason);
    return reason === null;
  }

  /** The same for a field that says itself why it was refused: null where the edit is made, or is none. */
  attempt(command: Command | null): string | null {
    if (!command || command.steps.length === 0) return null;
    const { variant, base, show } = this.state;
    const whole = { ...command, steps: withFollowers(show, command.steps) };
    const isOwn = variant !== null && !command.steps.every(({ doc }) => doc === 'songbook');
    const edit = isOwn ? editVariant(base, show, variant, whole) : null;
    if (edit && !edit.ok) return told(edit.problems);
    return this.make(edit?.value.command ?? whole, edit ? { show: edit.value.show, steps: whole.steps } : undefined);
  }

  /** An edit of the rig itself, whatever variant is looked at: going back to a revision, variants themselves. */
  runOnBase(command: Command): boolean {
    const reason = command.steps.length === 0 ? null : this.make(command);
    if (reason !== null) this.refuse(reason);
    return reason === null && command.steps.length > 0;
  }

  private make(command: Command, seen?: Seen): string | null {
    const batch: Batch = {
      id: crypto.randomUUID(),
      command: command.command,
      steps: normalised(command.steps) as readonly Step[],
    };
    const before = this.state.base;
    const reason = this.apply(batch, seen);
    if (reason === null && this.state.base !== before) this.change({ undo: [...this.state.undo, batch], redo: [] });
    return reason;
  }

  /** Looks at a variant of the rig, or (null) at the rig itself. */
  chooseVariant(id: string | null): void {
    const { base, variant } = this.state;
    if (id === variant || (id !== null && !variantNamed(base, id))) return;
    this.recent = [];
    this.change(baseOf(base, id));
  }

  undo(): void {
    const batch = this.state.undo.at(-1);
    if (batch && this.applied(inverse(batch)))
      this.change({ undo: this.state.undo.slice(0, -1), redo: [...this.state.redo, batch] });
  }

  redo(): void {
    const batch = this.state.redo.at(-1);
    if (batch && this.applied({ ...batch, id: crypto.randomUUID() }))
      this.change({ redo: this.state.redo.slice(0, -1), undo: [...this.state.undo, batch] });
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

  /** Makes an edit that was set aside again, over whatever is there now. */
  applyAside(key: string): void {
    const edit = this.aside.find((keptEdit) => keptEdit.key === key);
    if (!edit) return;
    const steps = rebaseSteps(this.state.base, edit.batch.steps);
    if (!steps) return this.refuse(`${describeCommand(edit.batch.command)}: what it changes is not there any more.`);
    if (steps.length > 0 && !this.runOnBase({ command: edit.batch.command, steps })) return;
    this.discardAside(key);
  }

  discardAside(key: string): void {
    this.setAsides(this.aside.filter((keptEdit) => keptEdit.key !== key));
    void this.transport.storage.remove(key).then(() => this.transport.windows.announce(this.id), this.keepsNothing);
  }

  private applied(batch: Batch): boolean {
    const reason = this.apply(batch);
    if (reason !== null) this.refuse(reason);
    return reason === null;
  }

  /** Applies an edit and puts it on its way; says why where it cannot be. */
  private apply(batch: Batch, seen?: Seen): string | null {
    const { base, show, variant } = this.state;
    const result = applySteps(base, batch.steps);
    if (!result.ok) return told(result.problems);
    if (result.value === base) {
      this.dismiss();
      return null;
    }
    if (isTooLarge(batch)) return `${describeCommand(batch.command)}: too much for one edit. Do it in parts.`;
    const edit: Outgoing = { key: editKey(this.id, batch, (this.made += 1)), batch, shown: true };
    this.outbox = [...this.outbox, edit];
    const next = baseOf(result.value, variant);
    // The very objects that are seen are kept where they hold what the variant comes to: all that follows is quick.
    const kept = seen && next.conflicts.length === this.state.conflicts.length ? asSeen(seen.show, next.show) : null;
    const steps = variant === null ? batch.steps : kept ? seen!.steps : null;
    this.recent = steps ? [...this.recent.slice(-30), { on: show, steps }] : [];
    this.change({
      ...next,
      ...(kept ? { show: kept } : {}),
      saving: this.state.saving === 'gone' ? 'gone' : 'saving',
      refusal: null,
      notice: null,
    });
    void this.transport.storage
      .put(edit)
      .catch(this.keepsNothing)
      .then(() => this.flush());
    return null;
  }

  /** Takes up edits that were kept and are in no window's hands any more. */
  private async adopt(olderThan = 0): Promise<void> {
    const loaded = await this.transport.storage.load(this.id).catch(() => null);
    if (!loaded) return this.keepsNothing();
    const known = new Set([...this.outbox, ...this.aside].map(({ key }) => key));
    const fresh = loaded.edits.filter((edit) => !known.has(edit.key) && madeAt(edit) <= Date.now() - olderThan);
    let { base: show } = this.state;
    for (const edit of fresh.filter(({ why }) => why === undefined)) {
      const result = applySteps(show, edit.batch.steps);
      if (result.ok) show = result.value;
      this.outbox = [...this.outbox, { ...edit, shown: result.ok }];
    }
    if (show !== this.state.base) this.recent = [];
    this.setAsides([...this.aside, ...fresh.filter(({ why }) => why !== undefined)]);
    this.change({
      ...(show === this.state.base ? {} : baseOf(show, this.state.variant)),
      ...(this.outbox.length > 0 ? { saving: 'saving' as const } : {}),
      ...(loaded.unreadable > 0
        ? {
            notice: `${loaded.unreadable} unsent ${loaded.unreadable === 1 ? 'edit' : 'edits'} in this browser could not be read, and ${loaded.unreadable === 1 ? 'was' : 'were'} put aside. All else is here.`,
          }
        : {}),
    });
  }

  /** Another window has decided about an edit that was set aside, or has set one aside. */
  private async reloadAside(): Promise<void> {
    const loaded = await this.transport.storage.load(this.id).catch(() => null);
    if (loaded) this.setAsides(loaded.edits.filter(({ why }) => why !== undefined));
  }

  private setAsides(aside: readonly KeptEdit[]): void {
    this.aside = aside;
    this.change({
      aside: aside.map(({ key, batch, why }) => ({
        key,
        words: describeCommand(batch.command),
        value: valueOf(batch.steps),
        why: why ?? '',
      })),
    });
  }

  private keepsNothing = (): void => {
    if (this.state.keeps) this.change({ keeps: false });
  };

  /** Keeps the show for a time when the server is away; a moment later, so that edits in a row cost it once. */
  private keepShow(): void {
    if (this.keeping) clearTimeout(this.keeping);
    this.keeping = setTimeout(() => this.keepShowNow(), keepAfter);
  }

  private keepShowNow(): void {
    const { base, revision, sharedWith } = this.state;
    if (this.outbox.length > 0 || this.behind) return;
    void this.transport.storage
      .keepShow({ id: this.id, revision, songbookRevision: this.songbookRevision, sharedWith, ...base })
      .catch(this.keepsNothing);
  }

  /**
   * Asks whether something was changed elsewhere: in another window, or through another rig that shares the songbook.
   */
  async refresh(): Promise<void> {
    if (this.talking || this.outbox.length > 0 || this.state.saving === 'gone') return;
    await this.talk(async () => {
      const at = await this.transport.readShow(this.id).catch(() => null);
      if (at && (at.revision !== this.state.revision || at.songbookRevision !== this.songbookRevision))
        await this.take(at);
      else if (at && at.sharedWith.join() !== this.state.sharedWith.join()) this.change({ sharedWith: at.sharedWith });
      if (at) await this.adopt(othersTurn);
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
        const at = await this.transport.ownSongbook(this.id);
        if (at.revision !== this.state.revision || !sameData(at.songbook, this.state.base.songbook))
          await this.take(at);
        this.songbookRevision = at.songbookRevision;
        this.change({ sharedWith: at.sharedWith });
        done = true;
      } catch (reason) {
        this.refuse(reason instanceof Error ? reason.message : String(reason));
      }
    });
    return done;
  }

  /**
   * Whatever was edited during an exchange is sent after it, unless it waits for another try: in a page that is being
   * left every request fails at once and timers have the id 0, and asking again at once would never end.
   */
  private async talk(about: () => Promise<void>): Promise<void> {
    this.talking = true;
    try {
      await about();
    } finally {
      this.talking = false;
    }
    if (this.outbox.length > 0 && this.retry === null) void this.flush();
  }

  private async flush(): Promise<void> {
    if (this.talking || this.state.saving === 'gone' || (this.outbox.length === 0 && !this.behind)) return;
    await this.talk(async () => {
      try {
        while (this.outbox.length > 0) await this.sendFirst();
        if (this.behind) await this.take(await this.transport.readShow(this.id));
        this.transport.windows.announce(this.id);
      } catch (reason) {
        await this.failed(reason);
      }
    });
  }

  private async sendFirst(): Promise<void> {
    const [{ batch, key, shown }] = this.outbox;
    const base = this.state.revision;
    const answer = await this.transport.sendBatch(this.id, { ...batch, base });
    const expected = this.songbookRevision + (batch.steps.some((step) => step.doc === 'songbook') ? 1 : 0);
    this.behind ||= !shown || answer.revision !== base + 1 || answer.songbookRevision !== expected;
    this.songbookRevision = answer.songbookRevision;
    this.outbox = this.outbox.slice(1);
    await this.transport.storage.remove(key).catch(this.keepsNothing);
    this.change({ revision: Math.max(answer.revision, base), saving: this.outbox.length > 0 ? 'saving' : 'saved' });
    if (!this.behind) this.keepShow();
  }

  /**
   * No answer: wait and try again, nothing is lost. A refusal: the edit cannot stand, and is set aside with the reason.
   */
  private async failed(reason: unknown): Promise<void> {
    if (reason instanceof RefusedError && reason.details?.status === 404) {
      this.change({
        saving: 'gone',
        refusal: 'This rig was deleted elsewhere. What is edited here is saved nowhere any more.',
      });
      return;
    }
    const why = this.outbox.length > 0 ? this.finalRefusal(reason) : null;
    if (why !== null) {
      try {
        await this.take(await this.transport.readShow(this.id), { edit: this.outbox[0], why });
        return;
      } catch {
        // The server went away meanwhile: asked again below.
      }
    }
    this.change({ saving: 'waiting' });
    this.retry ??= setTimeout(() => {
      this.retry = null;
      void this.flush();
    }, retryAfter);
  }

  /** Why the first edit will never be taken; null where it is worth another try. */
  private finalRefusal(reason: unknown): string | null {
    if (!(reason instanceof RefusedError) || !reason.details) return null;
    if (reason.details.status < 500) return reason.message;
    if (reason.details.code !== 'fault') return null;
    const { id } = this.outbox[0].batch;
    this.faults = { id, count: this.faults.id === id ? this.faults.count + 1 : 1 };
    return this.faults.count < mostFaults ? null : `The server failed on it ${mostFaults} times. ${reason.message}`;
  }

  /** Takes what the server has, and puts the edits not yet sent on top. One that was refused is set aside. */
  private async take(at: ShowAtRevision, refused?: { readonly edit: KeptEdit; readonly why: string }): Promise<void> {
    const { show, edits } = putOn(
      { rig: at.rig, songbook: at.songbook },
      this.outbox.filter((edit) => edit.key !== refused?.edit.key),
    );
    this.recent = [];
    this.songbookRevision = at.songbookRevision;
    this.outbox = edits;
    this.behind = false;
    const said = refused ? { undo: [], redo: [] } : { notice: 'Changed elsewhere meanwhile. You see the newest.' };
    this.change({
      ...baseOf(show, this.state.variant),
      revision: at.revision,
      saving: edits.length > 0 ? 'saving' : 'saved',
      sharedWith: at.sharedWith,
      ...said,
    });
    this.keepShow();
    if (!refused) return;
    const { key, batch } = refused.edit;
    const edit: KeptEdit = { key, batch, why: refused.why };
    await this.transport.storage.put(edit).catch(this.keepsNothing);
    this.setAsides([...this.aside.filter((keptEdit) => keptEdit.key !== key), edit]);
    this.transport.windows.announce(this.id);
  }

  /** What an earlier window could undo. An edit that stands in the way of one is said when it is tried. */
  private async recallUndo(): Promise<void> {
    const stacks = await this.transport.storage.loadUndo(this.id).catch(() => null);
    if (stacks && this.state.undo.length + this.state.redo.length === 0)
      this.state = { ...this.state, undo: stacks.undo, redo: stacks.redo };
  }

  private keepUndo(): void {
    const { undo, redo } = this.state;
    const stacks = { undo: undo.slice(-mostUndone), redo: redo.slice(-mostUndone) };
    void this.transport.storage.keepUndo(this.id, stacks).catch(this.keepsNothing);
  }

  private change(part: Partial<EditState>): void {
    this.state = { ...this.state, ...part };
    if (part.undo || part.redo) this.keepUndo();
    for (const listener of this.listeners) listener();
  }
}

/** What an edit made of what is seen, and the steps that did. */
interface Seen {
  readonly show: Show;
  readonly steps: readonly Step[];
}

/** A rig with what is seen of it; a variant that is not there any more is left. */
function baseOf(base: Show, variant: string | null): Pick<EditState, 'base' | 'show' | 'variant' | 'conflicts'> {
  const id = variant !== null && variantNamed(base, variant) ? variant : null;
  return { base, variant: id, ...variantOf(base, id) };
}

/** What is seen, beside the variants of the rig as they are now; null where that is not what they come to. */
function asSeen(seen: Show, now: Show): Show | null {
  const show: Show = { rig: { ...seen.rig, variants: now.rig.variants }, songbook: seen.songbook };
  return sameData(show, now) ? show : null;
}

const told = (problems: readonly Problem[]): string => problems.slice(0, 3).map(describeProblem).join(' ');

const isAway = (reason: unknown): boolean =>
  reason instanceof RefusedError && (reason.details === null || reason.details.status >= 500);

/** What goes over the wire has fields beside the steps. */
function isTooLarge(batch: Batch): boolean {
  if (batch.steps.length > batchLimits.steps) return true;
  const text = JSON.stringify(batch);
  // A code unit is three bytes at most.
  return text.length * 3 > batchLimits.bytes - 1000 && new TextEncoder().encode(text).length > batchLimits.bytes - 1000;
}

/** What a batch of one step sets, if it is a text or a number. */
function valueOf(steps: readonly Step[]): string | null {
  const [step, ...more] = steps;
  if (
    more.length > 0 ||
    step.op !== 'set' ||
    !('value' in step) ||
    (typeof step.value === 'object' && step.value !== null)
  )
    return null;
  return JSON.stringify(step.value).slice(0, 100);
}

const inverse = (batch: Batch): Batch => ({
  id: crypto.randomUUID(),
  command: { name: 'undo', facts: { of: describeCommand(batch.command) } },
  steps: invertSteps(batch.steps),
});

/** Edits put on a show in their order; those whose old values no longer match are not shown. */
function putOn(
  show: Show,
  outgoing: readonly Outgoing[],
): { readonly show: Show; readonly edits: readonly Outgoing[] } {
  let now = show;
  const edits = outgoing.map((edit): Outgoing => {
    const result = applySteps(now, edit.batch.steps);
    if (result.ok) now = result.value;
    return { ...edit, shown: result.ok };
  });
  return { show: now, edits };
}
