// Editors as the page is one: a batch is sent, with the same id, until it is taken or refused.
import { randomUUID } from 'node:crypto';
import { setTimeout as pause } from 'node:timers/promises';

const headers = { 'content-type': 'application/json' };

/** One request; null where there was no answer. */
export async function ask(url, method, where, body) {
  try {
    const answer = await fetch(`${url}${where}`, {
      method,
      headers: body === undefined ? {} : headers,
      ...(body === undefined ? {} : { body: JSON.stringify(body) }),
      signal: AbortSignal.timeout(20_000),
    });
    const text = await answer.text();
    return { status: answer.status, json: text === '' ? null : JSON.parse(text), answer };
  } catch {
    return null;
  }
}

/** Asks until there is an answer that is no 503. */
export async function askOn(url, method, where, body, counts) {
  for (;;) {
    const answer = await ask(url, method, where, body);
    if (answer && answer.status !== 503) {
      if (answer.status >= 500)
        counts.faults.push(`${method} ${where}: ${answer.status} ${JSON.stringify(answer.json)}`);
      return answer;
    }
    if (answer) counts.away += 1;
    await pause(40);
  }
}

/**
 * Edits one rig until told to stop; songs of its own, so that no editor undoes another's. Returns what was
 * acknowledged.
 */
export async function edit({ url, rig, song, random, counts, isOver }) {
  const taken = [];
  for (let n = 0; !isOver(); n += 1) {
    const read = await askOn(url, 'GET', `/api/shows/${rig}`, undefined, counts);
    if (read.status !== 200) {
      counts.faults.push(`${rig} cannot be read: ${read.status}`);
      return taken;
    }
    const { revision, rig: document, songbook } = read.json;
    const batch = { id: randomUUID(), base: revision, ...change({ document, songbook, song, n, random }) };
    const answer = await askOn(url, 'POST', `/api/shows/${rig}/batches`, batch, counts);
    if (answer.status === 200) {
      taken.push({ rig, id: batch.id, revision: answer.json.revision });
      counts.taken += 1;
      if (answer.json.repeated) counts.repeated += 1;
    } else if (answer.status === 409) counts.conflicts += 1;
    else counts.faults.push(`a batch was answered ${answer.status}: ${JSON.stringify(answer.json)}`);
  }
  return taken;
}

function change({ document, songbook, song, n, random }) {
  const set = (doc, at, old, value) => ({ doc, op: 'set', at, old, value });
  if (random.chance(0.3))
    return {
      command: { name: 'set-song', facts: { song } },
      steps: [set('songbook', ['songs', song, 'name'], songbook.songs[song].name, `${song} ${n} ${random.below(1e6)}`)],
    };
  const name = `Rig ${n} ${random.below(1e6)}`;
  const steps = [set('rig', ['name'], document.name, name)];
  // Some change rig and songbook in one: both or neither.
  if (random.chance(0.3))
    steps.push(set('songbook', ['songs', song, 'name'], songbook.songs[song].name, `${song} with ${name}`));
  return { command: { name: 'rename', facts: { name } }, steps };
}
