import http from 'node:http';
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

test('a server told to stop answers what it was asked, and is not kept up by one who asks on over the same connection', async () => {
  await running.startServer();
  const agent = new http.Agent({ keepAlive: true, maxSockets: 1 });
  const body = JSON.stringify({ kind: 'empty', name: 'Last order' });
  const order = http.request(`${running.url}/api/shows`, { method: 'POST', agent, headers: { 'content-type': 'application/json', 'content-length': body.length } });
  const answer = settled(order);
  order.write(body.slice(0, 5));
  await new Promise((resolve) => setTimeout(resolve, 200));
  const stopped = running.stopServer();
  await new Promise((resolve) => setTimeout(resolve, 200));
  order.end(body.slice(5));
  expect(await answer).toBe(201);

  let asked = 0;
  let refused = false;
  void stopped.then(() => (refused = true));
  while (!refused && asked < 20) {
    await settled(http.get(`${running.url}/health`, { agent })).then(() => (asked += 1), () => undefined);
    await new Promise((resolve) => setTimeout(resolve, 100));
  }
  agent.destroy();
  await stopped;
  expect(asked).toBeLessThan(3);
});
