import type { Show } from '../model/documents.ts';
import { formatVersion } from '../model/rig.ts';
import { isForbiddenKey } from '../model/shape.ts';
import { showShape } from '../model/documents.ts';
import { checkShow } from '../change/steps.ts';
import { showOfToday } from './version-1.ts';
import { jsonSize } from './json-size.ts';
import { accept, problem, refuse, type Problem, type Result } from '../units/problem.ts';

export const showFormat = 'yunta-show';
export const wireLimits = { bytes: 20_000_000, entries: 2_000_000, depth: 24 } as const;

/** An export file: both documents in one JSON text, keys in a fixed order. */
export function exportShow(show: Show): string {
  return `${JSON.stringify(sorted({ format: showFormat, version: formatVersion, rig: show.rig, songbook: show.songbook }), null, 1)}\n`;
}

/** Reads an export file; refuses it whole with pointer and reason. */
export function importShow(textOfFile: string): Result<Show> {
  const read = readJson(textOfFile);
  return read.ok ? readShow(read.value) : read;
}

/** Data of a JSON text of a size that somebody may have made. */
export function readJson(textOfFile: string): Result<unknown> {
  if (textOfFile.length > wireLimits.bytes)
    return refuse(problem('', 'too-large', { count: textOfFile.length, limit: wireLimits.bytes }));
  const { depth, entries } = jsonSize(textOfFile);
  if (entries > wireLimits.entries)
    return refuse(problem('', 'too-large', { count: entries, limit: wireLimits.entries }));
  if (depth > wireLimits.depth) return refuse(problem('', 'too-deep', { limit: wireLimits.depth }));
  try {
    return accept(JSON.parse(textOfFile) as unknown);
  } catch {
    return refuse(problem('', 'not-json'));
  }
}

export function readShow(data: unknown): Result<Show> {
  if (data === null || typeof data !== 'object' || Array.isArray(data))
    return refuse(problem('', 'not-this-format', { expected: showFormat }));
  const { format, version } = data as Record<string, unknown>;
  if (format !== showFormat) return refuse(problem('/format', 'not-this-format', { expected: showFormat }));
  if (typeof version === 'number' && version > formatVersion)
    return refuse(problem('/version', 'newer-version', { version, supported: formatVersion }));
  const problems: Problem[] = [];
  const clean = showOfToday(normalised(data));
  showShape.check(clean, '', problems);
  if (problems.length > 0) return { ok: false, problems: problems.slice(0, 50) };
  const { rig, songbook } = clean as unknown as Show;
  const checked = checkShow({ rig, songbook });
  return checked.ok ? accept(checked.value) : checked;
}

/** The published schema of an export file (JSON Schema 2020-12). */
export const showSchema = {
  $schema: 'https://json-schema.org/draft/2020-12/schema',
  $id: 'urn:yunta:show:2',
  title: 'Yunta show: a rig and its songbook',
  ...showShape.schema,
} as const;

/** Texts in NFC, so that the same word is the same word. Keys are ids and are left to the check. */
export function normalised(data: unknown): unknown {
  if (typeof data === 'string') return data.normalize('NFC');
  if (Array.isArray(data)) return data.map(normalised);
  if (data === null || typeof data !== 'object') return data;
  const copy: Record<string, unknown> = {};
  for (const key of Object.keys(data)) {
    const value = normalised((data as Record<string, unknown>)[key]);
    if (isForbiddenKey(key)) Object.defineProperty(copy, key, { value, enumerable: true });
    else copy[key] = value;
  }
  return copy;
}

/** With the keys of every object in one order. */
export function sorted(data: unknown): unknown {
  if (Array.isArray(data)) return data.map(sorted);
  if (data === null || typeof data !== 'object') return data;
  return Object.fromEntries(
    Object.keys(data)
      .sort()
      .map((key) => [key, sorted((data as Record<string, unknown>)[key])]),
  );
}
