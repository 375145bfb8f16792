import { expose } from 'comlink';
import { pdfDocument } from './pdf-document.ts';
import type { PageFoot, PaperSize, Printed } from './pdf-types.ts';

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
  /** Sheets and drawings as one PDF, each on a page of its own. */
  async print(printed: readonly Printed[], paper: PaperSize, foot: PageFoot): Promise<Uint8Array> {
    const made = (await (loaded ??= engine())).createPdf(pdfDocument(printed, paper, foot));
    return new Uint8Array(await made.getBuffer());
  },
};

export type PdfApi = typeof api;
expose(api);
