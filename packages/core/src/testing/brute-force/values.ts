import type { CaseRig } from '../recall-adapter.ts';

export type Value = number | string;

/** Marks a value that stands for content that nobody entered, under one assumption of what it is. */
const mark = '\u0001';
const numbers = '#';

export const unknown = (value: Value): Value => `${mark}${typeof value === 'number' ? `${numbers}${value}` : value}`;

/** The value itself, known or assumed. */
export function plain(value: Value): Value {
  if (typeof value === 'number' || !value.startsWith(mark)) return value;
  const inner = value.slice(1);
  return inner.startsWith(numbers) ? Number(inner.slice(1)) : inner;
}
export const isUnknown = (value: Value): boolean => plain(value) !== value;

export const listOf = <T>(value: T | readonly T[]): readonly T[] => (Array.isArray(value) ? value : [value as T]);

const known = new WeakMap<CaseRig, ReturnType<typeof findOpenContents>>();

/** The contents that nobody entered, in the order of the description. */
export function openContents(rig: CaseRig): ReturnType<typeof findOpenContents> {
  let found = known.get(rig);
  if (!found) known.set(rig, (found = findOpenContents(rig)));
  return found;
}

function findOpenContents(rig: CaseRig): readonly { readonly name: string; readonly domain: readonly Value[] }[] {
  return Object.entries(rig.devices ?? {}).flatMap(([device, { presets, controls }]) =>
    Object.entries(presets?.stored ?? {}).flatMap(([number, content]) =>
      Object.entries(content).flatMap(([control, value]) =>
        value === '?' && controls?.[control]
          ? [{ name: `${device} ${number} ${control}`, domain: controls[control].domain }]
          : [],
      ),
    ),
  );
}

/** What a preset stores of a control, contents assumed as given; undefined where it stores none. */
export function contentOf(
  rig: CaseRig,
  contents: readonly number[],
  device: string,
  number: number,
  control: string,
): Value | undefined {
  const stored = rig.devices?.[device]?.presets?.stored[String(number)]?.[control];
  if (stored !== '?') return stored;
  const open = openContents(rig);
  const at = open.findIndex(({ name }) => name === `${device} ${number} ${control}`);
  if (at < 0) return undefined;
  const { domain } = open[at];
  return domain.length === 1 ? domain[0] : unknown(domain[contents[at]]);
}
