import type { AppliedBatch, HistoryEntry, NewShow, ProblemDetails, SentBatch, ShowAtRevision, ShowSummary, Tick } from '@yunta/contract';

/** A refusal of the server, or the server not being there. */
export class RefusedError extends Error {
  constructor(
    readonly details: ProblemDetails | null,
    message: string,
  ) {
    super(message);
  }
}

async function ask<T>(path: string, init?: RequestInit): Promise<T> {
  let response: Response;
  try {
    response = await fetch(path, init);
  } catch {
    throw new RefusedError(null, 'The server does not answer.');
  }
  if (response.ok) return (response.status === 204 ? undefined : await response.json()) as T;
  const details = (await response.json().catch(() => null)) as ProblemDetails | null;
  throw new RefusedError(details, details?.title ?? `The server answered ${response.status}.`);
}

const send = (method: 'POST' | 'PUT', body: unknown): RequestInit => ({ method, headers: { 'content-type': 'application/json' }, body: JSON.stringify(body) });

export const listShows = (): Promise<ShowSummary[]> => ask('/api/shows');
export const readShow = (id: string): Promise<ShowAtRevision> => ask(`/api/shows/${encodeURIComponent(id)}`);
export const createShow = (body: NewShow): Promise<ShowSummary> => ask('/api/shows', send('POST', body));
export const sendBatch = (id: string, batch: SentBatch): Promise<AppliedBatch> => ask(`/api/shows/${encodeURIComponent(id)}/batches`, send('POST', batch));
export const removeShow = (id: string): Promise<void> => ask(`/api/shows/${encodeURIComponent(id)}`, { method: 'DELETE', headers: { 'content-type': 'application/json' } });
export const ownSongbook = (id: string): Promise<ShowAtRevision> => ask(`/api/shows/${encodeURIComponent(id)}/own-songbook`, send('POST', {}));
export const fileOf = (id: string): string => `/api/shows/${encodeURIComponent(id)}/file`;
export const readHistory = (id: string): Promise<HistoryEntry[]> => ask(`/api/shows/${encodeURIComponent(id)}/history`);
export const listTicks = (id: string): Promise<Tick[]> => ask(`/api/shows/${encodeURIComponent(id)}/ticks`);
export const setTick = (id: string, tick: { readonly line: string; readonly said: string; readonly done: boolean }): Promise<void> => ask(`/api/shows/${encodeURIComponent(id)}/ticks`, send('PUT', tick));
