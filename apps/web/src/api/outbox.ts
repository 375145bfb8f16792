import { type Batch, readBatch, showOfToday } from '@yunta/core';
import type { ShowAtRevision } from '@yunta/contract';
import { createStore, del, entries, get, set, type UseStore } from 'idb-keyval';

/** An edit that the server has not taken yet, or (with a reason) has refused. */
export interface KeptEdit {
  /** Says where it lies; keys of one rig sort in the order of the edits, whichever window made them. */
  readonly key: string;
  readonly batch: Batch;
  /** Why it is set aside; absent where it waits to be sent. */
  readonly why?: string;
}

export interface Outbox {
  readonly edits: readonly KeptEdit[];
  /**
   * What was found under a key of the rig and is no edit: it is moved out of the way, and nothing else is lost for it.
   */
  readonly unreadable: number;
}

/** What this browser keeps: each edit in a record of its own, so that two windows never write over one another. */
export interface Storage {
  readonly load: (rig: string) => Promise<Outbox>;
  readonly put: (edit: KeptEdit) => Promise<void>;
  readonly remove: (key: string) => Promise<void>;
  /** The rig as the server last told it, to open while the server is away. */
  readonly loadShow: (rig: string) => Promise<ShowAtRevision | null>;
  readonly keepShow: (at: ShowAtRevision) => Promise<void>;
  /** What can be undone and redone, so that it still can after a reload. */
  readonly loadUndo: (rig: string) => Promise<UndoStacks>;
  readonly keepUndo: (rig: string, stacks: UndoStacks) => Promise<void>;
}

/** Edits that can be taken back, and those taken back that can be made again; the last at the end. */
export interface UndoStacks {
  readonly undo: readonly Batch[];
  readonly redo: readonly Batch[];
}

/** So many edits are remembered. */
export const mostUndone = 100;

/** What of remembered edits can be read: from the end back to the first that cannot, since one undoes in order. */
export function readStacks(data: unknown): UndoStacks {
  const { undo, redo } = (data ?? {}) as Record<string, unknown>;
  return { undo: readable(undo), redo: readable(redo) };
}

function readable(list: unknown): readonly Batch[] {
  const batches: Batch[] = [];
  for (const each of Array.isArray(list) ? (list as unknown[]).slice(-mostUndone).reverse() : []) {
    const read = readBatch(each);
    if (!read.ok) break;
    batches.unshift(read.value);
  }
  return batches;
}

/** A fresh key for an edit of a rig; `count`: how many the window had made before it. */
export const editKey = (rig: string, batch: Batch, count: number, now = Date.now()): string =>
  `${prefixOf(rig)}${String(now).padStart(15, '0')}-${String(count).padStart(6, '0')}/${batch.id}`;
const prefixOf = (rig: string): string => `edit/${rig}/`;
/** When an edit was made, ms; 0 where the key does not say. */
export const madeAt = ({ key }: KeptEdit): number => Number(/\/(\d{15})-\d+\/[^/]*$/.exec(key)?.[1] ?? 0);

/** What lies under a key, if it is an edit. */
export function readEdit(key: string, data: unknown): KeptEdit | null {
  if (data === null || typeof data !== 'object') return null;
  const { batch, why } = data as Record<string, unknown>;
  const read = readBatch(batch);
  if (!read.ok || (why !== undefined && typeof why !== 'string')) return null;
  return { key, batch: read.value, ...(typeof why === 'string' ? { why } : {}) };
}

const patience = 4000;

/** Storage that does not answer counts as storage that is not there. */
async function soon<T>(work: () => Promise<T>): Promise<T> {
  let timer: ReturnType<typeof setTimeout> | undefined;
  try {
    return await Promise.race([
      work(),
      new Promise<never>(
        (_, reject) => (timer = setTimeout(() => reject(new Error('the browser’s storage does not answer')), patience)),
      ),
    ]);
  } finally {
    clearTimeout(timer);
  }
}

/** IndexedDB; each call rejects where the browser has none, or shuts it. */
export function browserStorage(): Storage {
  // Opened when first asked for: where there is no IndexedDB, asking throws.
  let editStore: UseStore | null = null;
  let showStore: UseStore | null = null;
  const edits = () => (editStore ??= createStore('yunta-edits', 'edits'));
  const shows = () => (showStore ??= createStore('yunta-shows', 'shows'));
  return {
    load: (rig) =>
      soon(async () => {
        await adoptOld(rig, edits());
        const found = (await entries<string, unknown>(edits()))
          .filter(([key]) => typeof key === 'string' && key.startsWith(prefixOf(rig)))
          .sort(([a], [b]) => (a < b ? -1 : 1));
        const read = found.map(([key, data]) => ({ key, data, edit: readEdit(key, data) }));
        const bad = read.filter(({ edit }) => edit === null);
        for (const { key, data } of bad) {
          await set(`unreadable/${key}`, data, edits());
          await del(key, edits());
        }
        return { edits: read.flatMap(({ edit }) => edit ?? []), unreadable: bad.length };
      }),
    put: ({ key, batch, why }) => soon(() => set(key, { batch, ...(why === undefined ? {} : { why }) }, edits())),
    remove: (key) => soon(() => del(key, edits())),
    loadShow: (rig) => soon(async () => showOfToday(await get<ShowAtRevision>(rig, shows())) ?? null),
    keepShow: (at) => soon(() => set(at.id, at, shows())),
    loadUndo: (rig) => soon(async () => readStacks(await get<unknown>(`undo/${rig}`, edits()))),
    keepUndo: (rig, stacks) => soon(() => set(`undo/${rig}`, stacks, edits())),
  };
}

/** Edits that were kept all under one key, as they used to be. */
async function adoptOld(rig: string, into: UseStore): Promise<void> {
  const old = await get<unknown>(`outbox:${rig}`);
  if (old === undefined) return;
  for (const [i, batch] of (Array.isArray(old) ? (old as Batch[]) : []).entries())
    await set(editKey(rig, batch, i, 0), { batch }, into);
  await del(`outbox:${rig}`);
}
