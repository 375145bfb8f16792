import type { Batch } from '@yunta/core';
import { get, set } from 'idb-keyval';

/** Batches not yet acknowledged, kept where a closed tab does not lose them. */
const key = (show: string): string => `outbox:${show}`;

export const loadOutbox = async (show: string): Promise<readonly Batch[]> => (await get<readonly Batch[]>(key(show))) ?? [];
export const saveOutbox = (show: string, batches: readonly Batch[]): Promise<void> => set(key(show), batches);
