// What became of what was acknowledged: told from a backup, which holds every batch, against the documents.
import { createInterface } from 'node:readline';
import { Readable } from 'node:stream';
import { createGunzip } from 'node:zlib';
import { applySteps, checkShow, sameData } from '@yunta/core';

/** All rows of all tables, as objects. */
export async function rowsOf(url) {
  const answer = await fetch(`${url}/api/backup`);
  const tables = {};
  let now = null;
  let isWhole = false;
  for await (const text of createInterface({ input: Readable.fromWeb(answer.body).pipe(createGunzip()) })) {
    const line = JSON.parse(text);
    if (line.table) now = { rows: (tables[line.table] = []), columns: line.columns };
    else if (line.row) now.rows.push(Object.fromEntries(line.row.map((cell, i) => [now.columns[i], cell])));
    else if (line.end) isWhole = true;
  }
  if (!isWhole) throw new Error('the backup is not whole');
  return tables;
}

/**
 * `lost`: acknowledged and not in the history, or at another revision. `doubled`: more revisions than batches.
 * `corrupt`:
 * documents that do not pass the checks. `torn`: documents that are not what their history makes of what they were.
 */
export function verdictOf({ before, after, taken }) {
  const found = { lost: 0, doubled: 0, corrupt: 0, torn: 0 };
  const batches = new Map(after.batches.map((row) => [`${row.show_id} ${row.id}`, row]));
  for (const { rig, id, revision } of taken) if (batches.get(`${rig} ${id}`)?.revision !== revision) found.lost += 1;
  const books = new Map(after.songbooks.map((row) => [row.id, row]));
  const showOf = (tables, row) => ({
    rig: JSON.parse(row.rig),
    songbook: JSON.parse(tables.songbooks.find(({ id }) => id === row.songbook_id).document),
  });
  for (const { id } of before.shows) if (!after.shows.some((row) => row.id === id)) found.lost += 1;
  for (const row of after.shows) if (!checkShow(showOf(after, row)).ok) found.corrupt += 1;
  for (const [book, { document, revision }] of books) {
    const rigs = before.shows.filter((row) => row.songbook_id === book);
    if (rigs.length === 0) continue;
    const replayed = replay(rigs.map((row) => ({ row, show: showOf(before, row), history: historyOf(after, row.id) })));
    if (replayed === null || !sameData(replayed.songbook, JSON.parse(document)) || replayed.writes !== revision)
      found.torn += 1;
    for (const { id, rig } of replayed?.rigs ?? []) {
      const row = after.shows.find((one) => one.id === id);
      if (!row) continue;
      const history = historyOf(after, id);
      if (row.revision !== history.length || new Set(history.map((one) => one.revision)).size !== history.length)
        found.doubled += 1;
      if (!sameData(rig, JSON.parse(row.rig)) || row.name !== rig.name) found.torn += 1;
    }
  }
  return found;
}

const historyOf = (tables, rig) =>
  tables.batches.filter((row) => row.show_id === rig).sort((a, b) => a.revision - b.revision);

/** Rigs over one songbook, their histories done again one after the other: no two of them change the same song. */
function replay(rigs) {
  let { songbook } = rigs[0].show;
  let writes = 0;
  const done = [];
  for (const { row, show, history } of rigs) {
    let rig = show.rig;
    for (const batch of history) {
      const steps = JSON.parse(batch.steps);
      const result = applySteps({ rig, songbook }, steps);
      if (!result.ok) return null;
      ({ rig, songbook } = result.value);
      if (steps.some(({ doc }) => doc === 'songbook')) writes += 1;
    }
    done.push({ id: row.id, rig });
  }
  return { rigs: done, songbook, writes };
}
