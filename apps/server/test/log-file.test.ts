import { existsSync, mkdtempSync, readFileSync, rmSync, statSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { afterAll, describe, expect, test } from '@jest/globals';
import { LogFile } from '../src/platform/log-file.ts';

const folder = mkdtempSync(path.join(os.tmpdir(), 'yunta-log-'));
afterAll(() => rmSync(folder, { recursive: true, force: true }));

describe('the log', () => {
  test('is cut into files of a size, of which the newest stay, and goes on over a restart', () => {
    const file = path.join(folder, 'a', 'yunta.log');
    const line = (n: number) => `line ${String(n).padStart(4, '0')}`;
    for (let from = 0; from < 200; from += 50) {
      const log = new LogFile(file, { bytes: 300, older: 2 });
      for (let n = from; n < from + 50; n += 1) log.write(line(n));
    }
    const files = [`${file}.2`, `${file}.1`, file];
    for (const file of files) expect(statSync(file).size).toBeLessThanOrEqual(300);
    expect(existsSync(`${file}.3`)).toBe(false);
    const lines = files.flatMap((file) => readFileSync(file, 'utf8').trim().split('\n'));
    expect(lines).toEqual(Array.from({ length: lines.length }, (_, i) => line(200 - lines.length + i)));
    expect(lines.length).toBeGreaterThan(60);
  });
  test('that cannot be written stops nobody', () => {
    const log = new LogFile(path.join(folder, 'b', 'yunta.log'));
    rmSync(path.join(folder, 'b'), { recursive: true });
    expect(() => log.write('x')).not.toThrow();
  });
});
