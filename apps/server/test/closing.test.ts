import http from 'node:http';
import net from 'node:net';
import { afterAll, beforeAll, expect, jest, test } from '@jest/globals';
import { Running } from '../../../e2e/running.ts';

jest.setTimeout(30_000);
const running = new Running();
beforeAll(() => running.startDatabase());
afterAll(() => running.stop());

const settled = (request: http.ClientRequest): Promise<number | undefined> =>
  new Promise((resolve, reject) => {
    request.once('response', (response) => response.resume().once('end', () => resolve(response.statusCode)));
    request.once('error', reject);
  });

const pause = (ms: number) => new Promise((resolve) => setTimeout(resolve, ms));

test('a server told to stop answers what it was asked, and is not kept up by one who asks on over the same connection', async () => {
  await running.startServer();
  const agent = new http.Agent({ keepAlive: true, maxSockets: 1 });
  const body = JSON.stringify({ kind: 'empty', name: 'Last order' });
  const headers = { 'content-type': 'application/json', 'content-length': body.length, expect: '100-continue' };
  const order = http.request(`${running.url}/api/shows`, { method: 'POST', agent, headers });
  const answer = settled(order);
  order.flushHeaders();
  // The server has the order's headers, and waits for the rest of it …
  await new Promise((resolve) => order.once('continue', resolve));
  order.write(body.slice(0, 5));
  const stopped = running.stopServer();
  // … while it closes: it takes no new connections any more.
  while (
    await settled(http.get(`${running.url}/health`, { agent: false })).then(
      () => true,
      () => false,
    )
  )
    await pause(20);
  order.end(body.slice(5));
  expect(await answer).toBe(201);

  let asked = 0;
  let refused = false;
  void stopped.then(() => (refused = true));
  while (!refused && asked < 20) {
    await settled(http.get(`${running.url}/health`, { agent })).then(
      () => (asked += 1),
      () => undefined,
    );
    await pause(100);
  }
  agent.destroy();
  await stopped;
  expect(asked).toBeLessThan(3);
});

test('a connection over which nothing was asked, as browsers open them in advance, does not keep it up', async () => {
  await running.startServer();
  const silent = net.connect(Number(new URL(running.url).port), '127.0.0.1');
  await new Promise((resolve) => silent.once('connect', resolve));
  const closed = new Promise((resolve) => silent.once('close', resolve));
  silent.on('error', () => undefined);
  const from = performance.now();
  await running.stopServer();
  expect(performance.now() - from).toBeLessThan(4000);
  await closed;
});
