import { type Remote, wrap } from 'comlink';
import type { Sheet } from '@yunta/core';
import type { PaperSize } from '../workers/pdf-types.ts';
import type { PdfApi } from '../workers/pdf.worker.ts';

let remote: Remote<PdfApi> | null = null;

/** Prints sheets to PDF off the page's thread. */
export function printPdf(sheets: readonly Sheet[], paper: PaperSize): Promise<Uint8Array> {
  remote ??= wrap<PdfApi>(new Worker(new URL('../workers/pdf.worker.ts', import.meta.url), { type: 'module' }));
  return remote.print(sheets, paper);
}
