// Requests that no page of ours sends: mutated batches and files, wrong kinds, broken bytes, bodies of every size up to
// the
// limit and past it. Each must be refused or taken, never a fault, and nobody else may wait for it.
import http from 'node:http';
import { setTimeout as pause } from 'node:timers/promises';
import { gzipSync } from 'node:zlib';
import { commands, exportShow, starterById } from '@yunta/core';
import { mutate, copied } from '@yunta/core/testing';

/** One request over a connection of its own; its status, or 0 where the connection ended without an answer. */
function send(url, { method, path, headers = {}, body = null }) {
  return new Promise((resolve) => {
    const request = http.request(`${url}${path}`, { method, headers, agent: false }, (response) => {
      response.resume();
      response.on('end', () => resolve(response.statusCode));
      response.on('error', () => resolve(response.statusCode));
    });
    request.on('error', () => resolve(0));
    request.setTimeout(30_000, () => request.destroy());
    if (body !== null) request.write(body);
    request.end();
  });
}

const json = { 'content-type': 'application/json' };
const times = (count, text) => Array.from({ length: count }, (_, i) => text(i)).join(',');

/** A body of about `bytes`, of the kinds that cost most. */
const large = (bytes, r) =>
  r.pick([
    () => `{${times(bytes / 12, (i) => `"k${i}":${i}`)}}`,
    () => '['.repeat(bytes),
    () => `{"steps":${'{"a":'.repeat(bytes / 6)}1`,
    () =>
      JSON.stringify({
        id: 'x',
        base: 0,
        command: { name: 'x', facts: {} },
        steps: [{ doc: 'rig', op: 'set', at: ['name'], old: 'a', value: 'b'.repeat(bytes) }],
      }),
    () =>
      JSON.stringify({
        id: 'x',
        base: 0,
        command: { name: 'x', facts: {} },
        steps: Array.from({ length: Math.min(3_900, bytes / 100) }, (_, i) => ({
          doc: 'rig',
          op: 'insert',
          at: ['sounds', `s${i}`],
          value: { id: `s${i}` },
        })),
      }),
    () =>
      JSON.stringify({
        id: 'x',
        base: 0,
        command: { name: 'x', facts: {} },
        steps: [
          {
            doc: 'rig',
            op: 'insert',
            at: ['sounds', 'x'],
            value: Object.fromEntries(Array.from({ length: bytes / 14 }, (_, i) => [`f${i}`, i])),
          },
        ],
      }),
    () =>
      JSON.stringify({
        id: 'x',
        base: 0,
        command: { name: 'x', facts: {} },
        steps: [
          {
            doc: 'songbook',
            op: 'insert',
            at: ['setLists', 'x'],
            value: { id: 'x', name: 'x', order: 'i', songs: Array.from({ length: bytes / 8 }, (_, i) => `s${i}`) },
          },
        ],
      }),
  ])();

function request(r, rigs, file, show) {
  const rig = r.pick([...rigs, 'nowhere', '%00', '..%2f..', 'x'.repeat(300)]);
  const post = (path, data) => ({
    method: 'POST',
    path,
    headers: json,
    body: typeof data === 'string' ? data : JSON.stringify(data),
  });
  const mutated = (data) => {
    const copy = { body: copied(data) };
    for (let n = r.below(3); n >= 0 && 'body' in copy; n -= 1) mutate(copy, r);
    return copy.body ?? null;
  };
  const kind = r.below(100);
  if (kind < 45) {
    const command = r.pick([
      () => commands.renameRig(show, `x${r.below(99)}`),
      () => commands.want(show, Object.keys(show.rig.sounds)[0] ?? 'x', 'delay/preset', r.below(128)),
      () => commands.addPlace(show, `p${r.below(99)}`, 'Place'),
      () => commands.addSong(show, `s${r.below(99)}`, 'Song'),
    ])();
    return post(`/api/shows/${rig}/batches`, mutated(copied({ id: `b${r.below(1e9)}`, base: 0, ...command })));
  }
  if (kind < 60) {
    const data = JSON.parse(file);
    mutate(data, r);
    return post('/api/shows', { kind: 'file', text: JSON.stringify(data) });
  }
  if (kind < 70)
    return post(
      '/api/shows',
      mutated({
        kind: r.pick(['empty', 'starter', 'demo', 'file']),
        name: 'x',
        starter: 'four-cable',
        songbookOf: rig,
      }),
    );
  if (kind < 76)
    return {
      method: 'PUT',
      path: `/api/shows/${rig}/ticks`,
      headers: json,
      body: JSON.stringify(mutated({ line: 'l', said: 's', done: r.chance(0.5) })),
    };
  if (kind < 82)
    return post(`/api/shows/${rig}/revisions`, mutated({ name: r.pick(['x', '\u0000', '\ud83c', 'y'.repeat(400)]) }));
  if (kind < 86)
    return {
      method: r.pick(['GET', 'POST', 'PUT', 'DELETE', 'PATCH', 'OPTIONS', 'HEAD']),
      path: r.pick([
        '/api/shows/',
        '/api/backups/x/restore',
        '/api/backups/..%2f..%2fx',
        '/api/schema',
        '/health',
        `/api/shows/${rig}/file`,
        '/api/nothing',
        `/${'y'.repeat(5_000)}`,
      ]),
      headers: r.pick([
        {},
        json,
        { 'content-type': 'text/plain' },
        { origin: 'http://elsewhere.example' },
        { host: 'elsewhere.example' },
      ]),
    };
  if (kind < 90)
    return {
      method: 'POST',
      path: `/api/shows/${rig}/batches`,
      headers: { ...json, 'content-encoding': r.pick(['gzip', 'br', 'deflate', 'x']) },
      body: gzipSync('{"x":1}'.repeat(r.below(100_000))),
    };
  if (kind < 97)
    return post(
      `/api/shows/${rig}/batches`,
      r.pick([
        '{"id":',
        '',
        'null',
        '[]',
        '7',
        '"x"',
        '{"__proto__":{"x":1}}',
        '{"constructor":1}',
        '\ufeff{}',
        '{"id":"\\ud83c"}',
      ]),
    );
  return post(
    r.pick([`/api/shows/${rigs[0]}/batches`, '/api/shows', `/api/shows/${rigs[0]}/revisions`]),
    large(r.pick([20_000, 200_000, 1_000_000, 1_990_000, 3_000_000]), r),
  );
}

/**
 * Sends so many over four connections at a time while another asks on: 5xx answers, and how long that one had to wait.
 */
export async function sendBadRequests({ url, rigs, random, count }) {
  const show = starterById('four-cable').make('x', 'X');
  const file = exportShow(show);
  const faults = [];
  let longest = 0;
  let sent = 0;
  const sender = async () => {
    while (sent < count) {
      sent += 1;
      const bad = request(random, rigs, file, show);
      const status = await send(url, bad);
      if (status >= 500)
        faults.push(`${bad.method} ${bad.path.slice(0, 80)}: ${status} for ${String(bad.body).slice(0, 200)}`);
      // Rigs that came of it go again, so that the list stays short.
      if (sent % 500 === 0) await tidy(url, rigs);
    }
  };
  let isOver = false;
  const other = (async () => {
    while (!isOver) {
      const from = performance.now();
      const answer = await fetch(`${url}/api/schema`).catch(() => null);
      await answer?.arrayBuffer();
      longest = Math.max(longest, performance.now() - from);
      if (!answer?.ok) faults.push(`the one that asked on was answered ${answer?.status ?? 'nothing'}`);
      await pause(10);
    }
  })();
  await Promise.all([sender(), sender(), sender(), sender()]);
  isOver = true;
  await other;
  await tidy(url, rigs);
  return { faults, longest, sent };
}

async function tidy(url, keep) {
  const answer = await fetch(`${url}/api/shows`);
  for (const { id } of await answer.json())
    if (!keep.includes(id)) await fetch(`${url}/api/shows/${id}`, { method: 'DELETE' });
}
