import type { Arrival, Batch, DeviceType, Problem, Rig, Songbook, StarterId } from '@yunta/core';

/** What the server and the web say to each other. */
export interface ShowSummary {
  readonly id: string;
  readonly name: string;
  readonly revision: number;
  readonly changedAt: string;
  readonly devices: number;
  readonly sounds: number;
  /** The id of the songbook that it plays from; rigs that share one have the same. */
  readonly songbook: string;
}

/** A rig that was deleted, and can be brought back. */
export interface DeletedShow {
  readonly id: string;
  readonly name: string;
  readonly deletedAt: string;
}

export interface ShowAtRevision {
  readonly id: string;
  readonly revision: number;
  /** Counts the batches that changed the songbook, whichever rig they came through. */
  readonly songbookRevision: number;
  /** Names of the other rigs that play from the same songbook. */
  readonly sharedWith: readonly string[];
  readonly rig: Rig;
  readonly songbook: Songbook;
}

/** A batch sent for a show, made over this revision. */
export interface SentBatch extends Batch {
  readonly base: number;
}

export interface AppliedBatch {
  readonly revision: number;
  readonly songbookRevision: number;
  /** True where this very batch had been applied before and its first result is told again. */
  readonly repeated: boolean;
}

export interface HistoryEntry {
  readonly revision: number;
  readonly at: string;
  readonly actor: string;
  readonly command: Batch['command'];
}

/** The rig as it was after an earlier edit. */
export interface PastShow {
  readonly revision: number;
  readonly rig: Rig;
  readonly songbook: Songbook;
  /** The songs are those of today: another rig that shares them has changed them since. */
  readonly songsOfToday: boolean;
}

export type NewShow =
  /** `songbookOf`: the rig whose songbook the new one shares; one of its own where absent. */
  | { readonly kind: 'empty'; readonly name: string; readonly songbookOf?: string }
  | { readonly kind: 'starter'; readonly starter: StarterId; readonly name: string; readonly songbookOf?: string }
  | { readonly kind: 'demo'; readonly rig?: 'combo' | 'fly'; readonly songbookOf?: string }
  /** `of`: the rig that is copied. */
  | { readonly kind: 'copy'; readonly of: string; readonly name: string; readonly songbookOf?: string }
  | { readonly kind: 'file'; readonly text: string };

/** RFC 9457 problem details, with Yunta's own codes. */
export interface ProblemDetails {
  readonly type: string;
  readonly title: string;
  readonly status: number;
  readonly code: string;
  /** Of a fault that nobody foresaw: under this the server's log has the story. */
  readonly id?: string;
  readonly errors: readonly Problem[];
}

/** What `/health` tells; 503 while the database is away. */
export interface Health {
  readonly server: 'ok';
  readonly database: 'ok' | 'away';
}

/** A revision that somebody gave a name to. */
export interface NamedRevision {
  readonly id: string;
  readonly name: string;
  readonly revision: number;
  readonly at: string;
  readonly actor: string;
}

/** With the documents as they were then. */
export interface RevisionContent extends NamedRevision {
  readonly rig: Rig;
  readonly songbook: Songbook;
}

/** Why a copy of all data was made: every day, by hand, or before something that changes all of them. */
export type BackupKind = 'daily' | 'manual' | 'before-upgrade' | 'before-restore';

/** So many copies of a kind are kept; the oldest go. */
export const backupsKept: Readonly<Record<BackupKind, number>> = {
  daily: 14,
  manual: 20,
  'before-upgrade': 5,
  'before-restore': 5,
};

/** A copy of all data that lies beside the database. */
export interface BackupFile {
  /** The file's name, by which it is downloaded and restored. */
  readonly name: string;
  readonly kind: BackupKind;
  readonly at: string;
  readonly bytes: number;
}

/** What a restore brought back: rows by table. */
export interface RestoredBackup {
  readonly rigs: number;
  readonly songbooks: number;
  readonly edits: number;
  /** The copy of what was there before, made first; null where nothing was. */
  readonly before: string | null;
}

/**
 * A line of the worksheet that somebody has keyed in, with what it said then: an edit that changes the line opens it
 * again.
 */
export interface Tick {
  readonly line: string;
  readonly said: string;
  readonly at: string;
  readonly actor: string;
}

/** A device type that somebody made, for every rig. */
export interface KeptType {
  readonly type: DeviceType;
  readonly at: string;
  readonly actor: string;
}

/** What became of the types of a file, counted. */
export type ArrivedTypes = Readonly<Record<Arrival, number>>;
