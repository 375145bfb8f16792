import type { Sheet } from '@yunta/core';
import { expose } from 'comlink';
import type { PaperSize } from './pdf-types.ts';

interface PdfMake {
  addVirtualFileSystem(files: unknown): void;
  createPdf(document: unknown): { getBuffer(): Promise<Uint8Array> };
}

/** The layout engine is large and only wanted here: it is loaded at the first sheet. */
async function engine(): Promise<PdfMake> {
  const [{ default: pdfMake }, { default: fonts }] = (await Promise.all([
    import('pdfmake/build/pdfmake.js'),
    import('pdfmake/build/vfs_fonts.js'),
  ])) as unknown as [{ default: PdfMake }, { default: unknown }];
  pdfMake.addVirtualFileSystem(fonts);
  return pdfMake;
}

let loaded: Promise<PdfMake> | null = null;

const api = {
  /** Sheets as one PDF, each on a page of its own. */
  async print(sheets: readonly Sheet[], paper: PaperSize): Promise<Uint8Array> {
    const made = (await (loaded ??= engine())).createPdf(documentOf(sheets, paper));
    return new Uint8Array(await made.getBuffer());
  },
};

function documentOf(sheets: readonly Sheet[], paper: PaperSize): object {
  return {
    pageSize: paper,
    pageMargins: [36, 40, 36, 44],
    info: { title: sheets.map((sheet) => sheet.title).join(', ') },
    defaultStyle: { fontSize: 9, lineHeight: 1.15 },
    footer: (page: number, pages: number) => ({
      text: `${sheets[0]?.about ?? ''}   ${page} / ${pages}`,
      alignment: 'right',
      margin: [36, 12, 36, 0],
      fontSize: 8,
    }),
    content: sheets.flatMap((sheet, i) => [
      { text: sheet.title, fontSize: 16, bold: true, ...(i > 0 ? { pageBreak: 'before' } : {}) },
      { text: sheet.about, margin: [0, 0, 0, 8], color: '#555' },
      ...sheet.groups.flatMap((group) => [
        { text: group.heading, bold: true, margin: [0, 8, 0, 3], fontSize: 10 },
        {
          layout: 'lightHorizontalLines',
          table: {
            headerRows: 1,
            widths: [
              'auto',
              ...sheet.columns.slice(0, -1).map((_, n) => (n === 0 || n === sheet.columns.length - 2 ? '*' : 'auto')),
              14,
            ].slice(0, sheet.columns.length + 1),
            body: [
              [...sheet.columns.map((column) => ({ text: column, bold: true, color: '#555' })), { text: '' }],
              ...group.lines.map((line) => [
                ...line.cells.map((cell) => ({ text: cell })),
                { canvas: [{ type: 'rect', x: 0, y: 1, w: 8, h: 8, lineWidth: 0.7 }] },
              ]),
            ],
          },
        },
      ]),
      ...sheet.notes.map((note) => ({ text: note, italics: true, margin: [0, 8, 0, 0] })),
    ]),
  };
}

export type PdfApi = typeof api;
expose(api);
