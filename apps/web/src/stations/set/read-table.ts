import { csvLimits, type Rows } from '@yunta/core';
import Papa from 'papaparse';

export type ReadTable = { readonly ok: true; readonly rows: Rows } | { readonly ok: false; readonly reason: string };

/** Whether a file begins as standard MIDI files do, whatever it is called. */
export const isMidi = (bytes: Uint8Array): boolean => String.fromCharCode(...bytes.subarray(0, 4)) === 'MThd';

/**
 * Rows of a CSV file of unknown origin: UTF-8 (or UTF-16 with its mark), comma, semicolon or tab; refused whole
 * otherwise.
 */
export function readTable(bytes: Uint8Array): ReadTable {
  if (bytes.length > csvLimits.bytes)
    return {
      ok: false,
      reason: `The file has ${bytes.length.toLocaleString('en')} bytes; ${csvLimits.bytes.toLocaleString('en')} is the limit. Split it up.`,
    };
  const text = decoded(bytes);
  if (text === null)
    return {
      ok: false,
      reason: 'The file is not UTF-8 text. Save it again as “CSV, UTF-8” and bring it in once more.',
    };
  if (text.includes('\u0000')) return { ok: false, reason: 'This is no table of text. Save it as “CSV, UTF-8”.' };
  const { data, errors } = Papa.parse<string[]>(text, {
    delimiter: delimiterOf(text),
    skipEmptyLines: false,
    preview: csvLimits.rows + 2,
  });
  const quote = errors.find((error) => error.type === 'Quotes');
  if (quote)
    return {
      ok: false,
      reason: `Line ${(quote.row ?? 0) + 1}: a quote is opened and not closed (or the other way round). Mend that line; nothing was taken in.`,
    };
  const last = data.at(-1);
  return { ok: true, rows: last?.length === 1 && last[0] === '' ? data.slice(0, -1) : data };
}

/** Told by the header alone: further down a comma may be a decimal one. */
function delimiterOf(text: string): string {
  const [head] = text.split(/\r?\n/, 1);
  return [';', '\t'].find((mark) => head.includes(mark)) ?? ',';
}

function decoded(bytes: Uint8Array): string | null {
  const label =
    bytes[0] === 0xff && bytes[1] === 0xfe ? 'utf-16le' : bytes[0] === 0xfe && bytes[1] === 0xff ? 'utf-16be' : 'utf-8';
  try {
    return new TextDecoder(label, { fatal: true }).decode(bytes);
  } catch {
    return null;
  }
}
