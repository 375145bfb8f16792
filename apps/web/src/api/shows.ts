import type {
  AppliedBatch,
  ArrivedTypes,
  BackupFile,
  DeletedShow,
  HistoryEntry,
  KeptType,
  NamedRevision,
  PastShow,
  NewShow,
  ProblemDetails,
  RestoredBackup,
  RevisionContent,
  SentBatch,
  ShowAtRevision,
  ShowSummary,
  Tick,
} from '@yunta/contract';

import type { DeviceType } from '@yunta/core';

/** A refusal of the server, or the server not being there. */
export class RefusedError extends Error {
  constructor(
    readonly details: ProblemDetails | null,
    message: string,
  ) {
    super(message);
  }
}

/** The server answers within 12 s or not at all; backups and restores of all data may take their time. */
const patience = 30_000;
const longPatience = 900_000;

async function ask<T>(path: string, init?: RequestInit, within = patience): Promise<T> {
  const response = await answerOf(path, init, within);
  return (response.status === 204 ? undefined : await response.json()) as T;
}

/** The answer where it is a good one; throws what the server, or its silence, says otherwise. */
async function answerOf(path: string, init?: RequestInit, within = patience): Promise<Response> {
  let response: Response;
  try {
    response = await fetch(path, { ...init, signal: AbortSignal.timeout(within) });
  } catch {
    throw new RefusedError(null, 'The server does not answer.');
  }
  if (response.ok) return response;
  const details = (await response.json().catch(() => null)) as ProblemDetails | null;
  throw new RefusedError(details, details?.title ?? `The server answered ${response.status}.`);
}

const send = (method: 'POST' | 'PUT', body: unknown): RequestInit => ({
  method,
  headers: { 'content-type': 'application/json' },
  body: JSON.stringify(body),
});

export const listShows = (): Promise<ShowSummary[]> => ask('/api/shows');
export const readShow = (id: string): Promise<ShowAtRevision> => ask(`/api/shows/${encodeURIComponent(id)}`);
export const createShow = (body: NewShow): Promise<ShowSummary> => ask('/api/shows', send('POST', body));
export const sendBatch = (id: string, batch: SentBatch): Promise<AppliedBatch> =>
  ask(`/api/shows/${encodeURIComponent(id)}/batches`, send('POST', batch));
export const removeShow = (id: string): Promise<void> =>
  ask(`/api/shows/${encodeURIComponent(id)}`, { method: 'DELETE' });
export const listDeleted = (): Promise<DeletedShow[]> => ask('/api/deleted-shows');
export const restoreShow = (id: string): Promise<ShowSummary> =>
  ask(`/api/deleted-shows/${encodeURIComponent(id)}/restore`, send('POST', {}));
export const ownSongbook = (id: string): Promise<ShowAtRevision> =>
  ask(`/api/shows/${encodeURIComponent(id)}/own-songbook`, send('POST', {}));
/** The rig as a file. */
export const readFileOf = async (id: string): Promise<Blob> =>
  (await answerOf(`/api/shows/${encodeURIComponent(id)}/file`)).blob();
export const readHistory = (id: string): Promise<HistoryEntry[]> => ask(`/api/shows/${encodeURIComponent(id)}/history`);
export const readPast = (id: string, revision: number): Promise<PastShow> =>
  ask(`/api/shows/${encodeURIComponent(id)}/history/${revision}`);
export const listTicks = (id: string): Promise<Tick[]> => ask(`/api/shows/${encodeURIComponent(id)}/ticks`);
export const setTick = (
  id: string,
  tick: { readonly line: string; readonly said: string; readonly done: boolean },
): Promise<void> => ask(`/api/shows/${encodeURIComponent(id)}/ticks`, send('PUT', tick));

const revisionsOf = (id: string): string => `/api/shows/${encodeURIComponent(id)}/revisions`;
export const listRevisions = (id: string): Promise<NamedRevision[]> => ask(revisionsOf(id));
export const keepRevision = (id: string, name: string): Promise<NamedRevision> =>
  ask(revisionsOf(id), send('POST', { name }));
export const readRevision = (id: string, revision: string): Promise<RevisionContent> =>
  ask(`${revisionsOf(id)}/${encodeURIComponent(revision)}`);
export const removeRevision = (id: string, revision: string): Promise<void> =>
  ask(`${revisionsOf(id)}/${encodeURIComponent(revision)}`, { method: 'DELETE' });

export const listTypes = (): Promise<KeptType[]> => ask('/api/types');
const typeAt = (id: string): string => `/api/types/${encodeURIComponent(id)}`;
/** `base`: the revision that it was made from; null for one that is not kept yet. */
export const keepType = (type: DeviceType, base: number | null): Promise<DeviceType> =>
  ask(typeAt(type.id), send('PUT', { base, type }));
export const bringTypes = (text: string): Promise<ArrivedTypes> => ask('/api/types/file', send('POST', { text }));
export const removeType = (id: string): Promise<void> => ask(typeAt(id), { method: 'DELETE' });

export const listBackups = (): Promise<BackupFile[]> => ask('/api/backups');
export const makeBackup = (): Promise<BackupFile> => ask('/api/backups', send('POST', {}), longPatience);
const backupOf = (name: string): string => `/api/backups/${encodeURIComponent(name)}`;
export const readBackup = async (name: string): Promise<Blob> =>
  (await answerOf(backupOf(name), undefined, longPatience)).blob();
export const restoreBackup = (name: string): Promise<RestoredBackup> =>
  ask(`${backupOf(name)}/restore`, send('POST', {}), longPatience);
