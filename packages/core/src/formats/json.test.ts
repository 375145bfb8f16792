import { readFileSync, writeFileSync } from 'node:fs';
import { describe, expect, test } from '@jest/globals';
import { Ajv2020 } from 'ajv/dist/2020.js';
import fc from 'fast-check';
import { demoShow } from '../demo/demo.ts';
import { clean, fourCable, lead } from '../testing/build-show.ts';
import { describeProblem } from '../units/problem.ts';
import { readBatch } from './batch.ts';
import { exportShow, importShow, readShow, showSchema } from './json.ts';

const golden = new URL('../../fixtures/show-version-2.json', import.meta.url);
const demo = demoShow();
const text = exportShow(demo);
const mutated = (change: (data: never) => void): string => {
  const data = JSON.parse(text);
  change(data as never);
  return JSON.stringify(data);
};
type Loose = Record<string, never> & {
  rig: { devices: Record<string, never>; cables: Record<string, never>; sounds: Record<string, never> };
};

describe('files in and out', () => {
  test('what was exported comes back the same, and exports to the same bytes', () => {
    const result = importShow(text);
    expect(result).toEqual({ ok: true, value: demo });
    if (result.ok) expect(exportShow(result.value)).toBe(text);
  });
  test('the file of format version 2 is read as it was written', () => {
    if (process.env.WRITE_GOLDEN)
      writeFileSync(golden, exportShow(fourCable().sound('lead', lead).sound('clean', clean).laid().show));
    const kept = readFileSync(golden, 'utf8');
    const result = importShow(kept);
    expect(result.ok).toBe(true);
    if (result.ok) expect(exportShow(result.value)).toBe(kept);
  });
});

describe('bad input is refused whole, with place and reason', () => {
  const deep = (levels: number) => `${'['.repeat(levels)}${']'.repeat(levels)}`;
  const cases: readonly (readonly [string, string, string, string])[] = [
    ['not JSON', '{"rig": ', '', 'not-json'],
    ['empty', '', '', 'not-json'],
    ['a list', '[]', '', 'not-this-format'],
    ['another format', '{"format": "song-sheet"}', '/format', 'not-this-format'],
    ['a newer version', mutated((d: { version: number }) => (d.version = 3)), '/version', 'newer-version'],
    ['depth 100,000', deep(100_000), '', 'too-deep'],
    [
      'depth 100,000 inside',
      `{"format":"yunta-show","version":1,"rig":${'{"a":'.repeat(100_000)}1${'}'.repeat(100_000)}}`,
      '',
      'too-deep',
    ],
    [
      'an unknown field',
      mutated((d: { rig: Record<string, unknown> }) => (d.rig.colour = 'red')),
      '/rig/colour',
      'unknown-field',
    ],
    [
      'a missing field',
      mutated((d: { rig: Record<string, unknown> }) => delete d.rig.settings),
      '/rig',
      'missing-field',
    ],
    [
      'a plug in a jack that is not there',
      mutated(
        (d: Loose) => ((d.rig.cables['cable-1'] as never as { plugs: { jack: string }[] }).plugs[0].jack = 'usb'),
      ),
      '/rig/cables/cable-1/plugs/0',
      'jack-missing',
    ],
    [
      'a jack used twice',
      mutated(
        (d: Loose) =>
          ((d.rig.cables['cable-2'] as never as { plugs: object[] }).plugs[0] = { device: 'guitar', jack: 'out' }),
      ),
      '/rig/cables/cable-2/plugs/0',
      'jack-taken',
    ],
    [
      'a MIDI plug in an instrument jack',
      mutated((d: Loose) => ((d.rig.cables['cable-1'] as never as { kind: string }).kind = 'midi')),
      '/rig/cables/cable-1/plugs/0',
      'jack-kind',
    ],
    [
      'a channel outside its domain',
      mutated((d: Loose) => ((d.rig.devices.echo as never as { channel: number }).channel = 99)),
      '/rig/devices/echo/channel',
      'out-of-domain',
    ],
    [
      'a wanted value outside its domain',
      mutated(
        (d: Loose) =>
          ((d.rig.sounds['sound-1'] as never as { wants: Record<string, unknown> }).wants['combo/channel'] = 'purple'),
      ),
      '/rig/sounds/sound-1/wants/combo~1channel',
      'out-of-domain',
    ],
    [
      'a stored value outside its domain',
      mutated(
        (d: Loose) =>
          ((d.rig.devices.echo as never as { presets: Record<string, unknown> }).presets['9'] = {
            values: { mix: 900 },
          }),
      ),
      '/rig/devices/echo/presets/9/values/mix',
      'out-of-domain',
    ],
    [
      'a parameter that is called as something that every object has',
      mutated((d: Loose) =>
        Object.assign((d.rig.devices.echo as never as { type: { params: object } }).type.params, { toString: 1 }),
      ),
      '/rig/devices/echo/type/params/toString',
      'unknown-field',
    ],
    [
      'an entry under another id',
      mutated((d: Loose) => ((d.rig.sounds['sound-1'] as never as { id: string }).id = 'sound-2')),
      '/rig/sounds/sound-1/id',
      'out-of-domain',
    ],
    [
      'control characters',
      mutated((d: Loose) => ((d.rig.devices.echo as never as { name: string }).name = 'a\u0000b')),
      '/rig/devices/echo/name',
      'wrong-type',
    ],
    [
      '__proto__ as a key',
      text.replace('"cables":', '"__proto__": {"polluted": true}, "cables":'),
      '/rig/__proto__',
      'forbidden-key',
    ],
  ];
  test.each(cases)('%s', (_, file, pointer, code) => {
    const result = importShow(file);
    expect(result.ok).toBe(false);
    if (result.ok) return;
    const found = result.problems.find((problem) => problem.code === code);
    expect(found?.pointer).toBe(pointer);
    expect(describeProblem(found!)).toMatch(/[.]$/);
    expect(({} as { polluted?: unknown }).polluted).toBeUndefined();
  });
  test('10,000 devices', () => {
    const file = mutated((d: Loose) => {
      const echo = d.rig.devices.echo as object;
      for (let i = 0; i < 10_000; i += 1)
        (d.rig.devices as Record<string, unknown>)[`copy-${i}`] = { ...echo, id: `copy-${i}` };
    });
    expect(importShow(file)).toMatchObject({ ok: false, problems: [{ code: 'too-large', pointer: '/rig/devices' }] });
  });
  test.each([
    ['markup', '<img src=x onerror=alert(1)>'],
    ['emoji', 'Echo 🎸👩‍🎤'],
    ['bidirectional marks', 'echo\u202Eevil\u202C'],
    ['formula', '=1+1'],
  ])('%s in a name is text like any other', (_, name) => {
    const result = importShow(mutated((d: Loose) => ((d.rig.devices.echo as never as { name: string }).name = name)));
    expect(result.ok && result.value.rig.devices.echo.name).toBe(name);
  });
  test('texts are kept in one normal form', () => {
    const result = importShow(
      mutated((d: Loose) => ((d.rig.devices.echo as never as { name: string }).name = 'E\u0301cho')),
    );
    expect(result.ok && result.value.rig.devices.echo.name).toBe('\u00c9cho');
  });
  test('batches: unknown operations, too many steps, a set that writes nothing are told apart', () => {
    const batch = {
      id: 'b1',
      command: { name: 'x', facts: {} },
      steps: [{ doc: 'rig', op: 'set', at: ['name'], old: 'a', value: 'b' }],
    };
    expect(readBatch(batch)).toMatchObject({ ok: true });
    expect(readBatch({ ...batch, steps: [{ ...batch.steps[0], op: 'merge' }] })).toMatchObject({ ok: false });
    expect(readBatch({ ...batch, steps: Array.from({ length: 5000 }, () => batch.steps[0]) })).toMatchObject({
      ok: false,
    });
    expect(readBatch({ ...batch, id: '../x' })).toMatchObject({ ok: false });
    expect(readBatch(null)).toMatchObject({ ok: false });
  });
});

describe('the published schema', () => {
  const validate = new Ajv2020({ strict: false }).compile(showSchema);
  test('accepts what is exported', () => {
    expect(validate(JSON.parse(text))).toBe(true);
  });
  test('whatever the core accepts, the schema accepts, and what the schema refuses, the core refuses', () => {
    const paths = pathsOf(JSON.parse(text)).filter((path) => path.length > 1);
    const values = [null, true, -1, 0, 1, 17, 1e9, '', 'x', 'a/b', [], {}, [1], { kind: 'wait', ms: 1 }];
    let refused = 0;
    fc.assert(
      fc.property(fc.nat(paths.length - 1), fc.nat(values.length), (p, v) => {
        const data = JSON.parse(text);
        change(data, paths[p], v === values.length ? undefined : values[v]);
        const bySchema = validate(data);
        const byCore = readShow(JSON.parse(JSON.stringify(data))).ok;
        if (!bySchema) refused += 1;
        expect([paths[p].join('/'), byCore && !bySchema]).toEqual([paths[p].join('/'), false]);
      }),
      { numRuns: 400, seed: 5 },
    );
    expect(refused).toBeGreaterThan(100);
  });
});

function pathsOf(data: unknown, at: readonly string[] = []): readonly (readonly string[])[] {
  if (data === null || typeof data !== 'object') return [at];
  return [at, ...Object.entries(data).flatMap(([key, value]) => pathsOf(value, [...at, key]))];
}

function change(data: Record<string, unknown>, path: readonly string[], value: unknown): void {
  const parent = path.slice(0, -1).reduce((node, key) => node[key] as Record<string, unknown>, data);
  if (value === undefined) delete parent[path.at(-1)!];
  else parent[path.at(-1)!] = value;
}
