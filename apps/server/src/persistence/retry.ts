import { setTimeout as pause } from 'node:timers/promises';
import { QueryFailedError } from 'typeorm';

/**
 * What MariaDB says when two transactions waited for each other, or one for too long: whoever is told so may try again.
 */
const passing: ReadonlySet<string> = new Set(['ER_LOCK_DEADLOCK', 'ER_LOCK_WAIT_TIMEOUT', 'ER_CHECKREAD']);
/** What the driver says when the database is not there, or does not answer in time. */
const away: ReadonlySet<string> = new Set([
  'ECONNREFUSED',
  'ECONNRESET',
  'EPIPE',
  'ETIMEDOUT',
  'ENOTFOUND',
  'PROTOCOL_CONNECTION_LOST',
  'PROTOCOL_SEQUENCE_TIMEOUT',
  'ER_SERVER_SHUTDOWN',
  'ER_CON_COUNT_ERROR',
  'ER_CONNECTION_KILLED',
  'ER_QUERY_INTERRUPTED',
]);
const full: ReadonlySet<string> = new Set(['ER_DISK_FULL', 'ER_RECORD_FILE_FULL', 'ER_ERROR_ON_WRITE', 'ENOSPC']);

const codeOf = (reason: unknown): string => {
  const at =
    reason instanceof QueryFailedError
      ? (reason.driverError as { code?: unknown })
      : (reason as { code?: unknown } | null);
  return typeof at?.code === 'string' ? at.code : '';
};

export const isAway = (reason: unknown): boolean =>
  away.has(codeOf(reason)) ||
  (reason instanceof Error && /closed state|Connection lost|Pool is closed/.test(reason.message));
export const isDiskFull = (reason: unknown): boolean => full.has(codeOf(reason));
export const isPassing = (reason: unknown): boolean => passing.has(codeOf(reason));

/** Does a transaction again where the database asks for it; the last refusal goes out. */
export async function withRetries<T>(transaction: () => Promise<T>, tries = 6): Promise<T> {
  for (let n = 1; ; n += 1) {
    try {
      return await transaction();
    } catch (reason) {
      if (n >= tries || !isPassing(reason)) throw reason;
      await pause(10 * n + Math.random() * 30);
    }
  }
}
