import { describe, expect, test } from '@jest/globals';
import { csvLimits } from '@yunta/core';
import { readTable } from './read-table.ts';

const utf8 = (text: string): Uint8Array => new TextEncoder().encode(text);
const rowsOf = (bytes: Uint8Array) => {
  const read = readTable(bytes);
  return read.ok ? read.rows : read.reason;
};

describe('tables of unknown origin', () => {
  test('comma, semicolon and tab; quotes over lines; a byte order mark', () => {
    expect(rowsOf(utf8('song,tempo\r\nA,100\r\n'))).toEqual([
      ['song', 'tempo'],
      ['A', '100'],
    ]);
    expect(rowsOf(utf8('song;tempo\nA;96,5\n'))).toEqual([
      ['song', 'tempo'],
      ['A', '96,5'],
    ]);
    expect(rowsOf(utf8('song\ttempo\nA\t100'))).toEqual([
      ['song', 'tempo'],
      ['A', '100'],
    ]);
    expect(rowsOf(utf8('\uFEFFsong,part\n"A, ""b""","two\nlines"\n'))).toEqual([
      ['song', 'part'],
      ['A, "b"', 'two\nlines'],
    ]);
  });
  test('UTF-16 with its mark is read; Latin-1 and pictures are refused with what to do', () => {
    const utf16 = Uint8Array.from([
      0xff,
      0xfe,
      ...[...'song\nÉté'].flatMap((letter) => [letter.charCodeAt(0) & 0xff, letter.charCodeAt(0) >> 8]),
    ]);
    expect(rowsOf(utf16)).toEqual([['song'], ['Été']]);
    expect(rowsOf(Uint8Array.from([0x73, 0x6f, 0x6e, 0x67, 0x0a, 0xc9, 0x74]))).toMatch(/UTF-8/);
    expect(rowsOf(utf8('song\n\u0000\u0001'))).toMatch(/no table/);
  });
  test('an open quote is refused with its line; a file too large is refused before it is parsed', () => {
    expect(rowsOf(utf8('song\n"A\nB\n'))).toMatch(/^Line 2: a quote/);
    expect(rowsOf(new Uint8Array(csvLimits.bytes + 1).fill(65))).toMatch(/limit/);
  });
  test('a hundred thousand lines come back as more rows than are taken', () => {
    const rows = rowsOf(utf8(`song\n${'A\n'.repeat(100_000)}`));
    expect(rows.length).toBeGreaterThan(csvLimits.rows);
    expect(rows.length).toBeLessThan(csvLimits.rows + 10);
  });
});
