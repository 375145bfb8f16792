import { describe, expect, test } from '@jest/globals';
import { buildWiring, cueSheet, demoShow, partPlans, patchList, programmingSheets, proverOf } from '@yunta/core';
import { pdfDocument } from './pdf-document.ts';
import type { Printed } from './pdf-types.ts';

const show = demoShow();
const wiring = buildWiring(show.rig);
const printed: readonly Printed[] = [
  ...[
    ...programmingSheets(show, wiring),
    patchList(show, wiring),
    cueSheet(show, wiring, partPlans(proverOf(show))),
  ].map((sheet): Printed => ({
    kind: 'sheet',
    sheet,
  })),
  { kind: 'drawing', title: 'Routing', about: 'in Lead', svg: '<svg/>' },
];
const foot = { rig: 'Harbour rig', revision: 12, date: '3 May' };
const made = pdfDocument(printed, 'A4', foot) as {
  readonly pageSize: string;
  readonly content: readonly Record<string, unknown>[];
  readonly footer: (page: number, pages: number) => object;
};
const begins = made.content.filter((node) => 'pageOrientation' in node);

describe('the paper', () => {
  test('says rig, revision, date and page at the foot of each page', () => {
    expect(JSON.stringify(made.footer(2, 5))).toMatch(/Harbour rig, revision 12, 3 May.*2 \/ 5/);
  });

  test('begins each sheet on a page of its own, wide matrices and drawings across', () => {
    expect(begins).toHaveLength(printed.length);
    expect(begins.map((node) => [node.pageBreak, node.pageOrientation])).toEqual([
      [undefined, 'portrait'],
      ['before', 'landscape'],
      ['before', 'portrait'],
      ['before', 'portrait'],
      ['before', 'portrait'],
      ['before', 'landscape'],
    ]);
  });

  test('breaks no slot and no song over two pages', () => {
    const groups = made.content.filter((node) => 'stack' in node);
    expect(groups.length).toBeGreaterThan(20);
    expect(groups.every((group) => group.unbreakable)).toBe(true);
  });

  test('has every row of every table as wide as its first', () => {
    const tables = JSON.stringify(made.content).match(/"body"/g)!.length;
    let seen = 0;
    const walk = (node: unknown): void => {
      if (node === null || typeof node !== 'object') return;
      const { table } = node as { table?: { body: readonly unknown[][]; widths: readonly unknown[] } };
      if (table) {
        seen += 1;
        expect(new Set([table.widths.length, ...table.body.map((row) => row.length)]).size).toBe(1);
      }
      for (const inner of Object.values(node)) walk(inner);
    };
    walk(made.content);
    expect(seen).toBe(tables);
  });
});
