import {
  type Anatomy,
  type Control,
  type ControlValue,
  domainValues,
  inDomain,
  type StoredOrder,
} from '../model/anatomy.ts';
import { domainLabel, noteWords } from '../model/labels.ts';
import { orderControls, orderOf, orderTyped, orderWords } from '../model/orders.ts';
import type { NoteValue, StoredPreset } from '../model/rig.ts';
import type { Milliseconds } from '../units/quantities.ts';
import { numberTyped } from '../units/typed.ts';

/** What a device’s presets hold, as a table: a row a preset, a column a thing that is stored. */
export type PresetColumn = { readonly id: string; readonly label: string } & (
  | { readonly kind: 'name' }
  | { readonly kind: 'order'; readonly order: StoredOrder }
  | { readonly kind: 'control'; readonly control: Control }
  | { readonly kind: 'sync' }
  /** Of the whole preset, or of one state inside it. */
  | { readonly kind: 'latency'; readonly state?: string }
);

/** The name, orders, then everything else that a preset stores, last the part of the beat that it keeps. */
export function presetColumns(anatomy: Anatomy): readonly PresetColumn[] {
  const stored = anatomy.controls.filter(({ scope }) => scope === 'preset');
  const orders = (anatomy.orders ?? []).filter(({ of }) => stored.some(({ id }) => id === of[0].control));
  return [
    { kind: 'name', id: 'name', label: 'Name' },
    ...orders.map((order): PresetColumn => ({ kind: 'order', id: order.id, label: order.label, order })),
    ...stored
      .filter(({ id }) => !orderOf(anatomy, id))
      .map((control): PresetColumn => ({ kind: 'control', id: control.id, label: control.label, control })),
    { kind: 'sync', id: 'sync', label: 'Note value' },
    { kind: 'latency', id: 'latency', label: 'Latency, ms' },
    ...statesOf(anatomy).map((state): PresetColumn => ({
      kind: 'latency',
      id: `latency-${state}`,
      label: `Latency, state ${state}, ms`,
      state,
    })),
  ];
}

function statesOf({ presets, controls }: Anatomy): readonly string[] {
  const state = controls.find(({ id }) => id === presets?.state);
  return state ? domainValues(state.domain).map(String) : [];
}

/** A preset that does not store a control, so that a recall leaves it as it was, says so. */
export const leftAsItWas = '=';

/** What a cell holds; empty where nobody knows. */
export function presetText(column: PresetColumn, preset: StoredPreset): string {
  switch (column.kind) {
    case 'name':
      return preset.name ?? '';
    case 'sync':
      return preset.sync === undefined ? '' : noteWords[preset.sync];
    case 'latency':
      return String((column.state === undefined ? preset.latencyMs : preset.latencyInState?.[column.state]) ?? '');
    case 'order':
      return preset.keeps?.includes(column.order.of[0].control)
        ? leftAsItWas
        : (orderWords(column.order, (control) => preset.values[control]) ?? '');
    case 'control': {
      if (preset.keeps?.includes(column.id)) return leftAsItWas;
      const value = preset.values[column.id] ?? null;
      return value === null ? '' : domainLabel(column.control.domain, value);
    }
  }
}

/** The preset with a cell as it was typed; empty: nobody knows. A text where it is refused: the reason. */
export function presetTyped(column: PresetColumn, preset: StoredPreset, typed: string): StoredPreset | string {
  const text = typed.trim();
  switch (column.kind) {
    case 'name': {
      const { name: _, ...rest } = preset;
      return text === '' ? rest : text.length > 200 ? 'A name has 200 characters at most.' : { ...rest, name: text };
    }
    case 'sync': {
      const { sync: _, ...rest } = preset;
      if (text === '') return rest;
      const notes = Object.keys(noteWords) as NoteValue[];
      const sync = notes.find((note) => noteWords[note] === text.toLowerCase() || note === text.toLowerCase());
      return sync === undefined
        ? `“${text}” is none of ${notes.map((note) => noteWords[note]).join(', ')}.`
        : { ...rest, sync };
    }
    case 'latency': {
      const ms = text === '' ? undefined : numberTyped(text);
      return text !== '' && (ms === undefined || ms < 0 || ms > 1_000)
        ? `“${text}” is no latency: 0 to 1,000 ms.`
        : withLatency(preset, column.state, ms as Milliseconds | undefined);
    }
    case 'order': {
      const controls = orderControls(column.order);
      if (text === '' || text === leftAsItWas) return withValues(preset, controls, new Map(), text !== '');
      const values = orderTyped(column.order, text);
      return typeof values === 'string' ? values : withValues(preset, controls, values, false);
    }
    case 'control': {
      if (text === '' || text === leftAsItWas) return withValues(preset, [column.id], new Map(), text !== '');
      const value = valueTyped(column.control, text);
      return value === undefined
        ? `“${text}” is no value of ${column.label}: ${domainText(column.control)}.`
        : withValues(preset, [column.id], new Map([[column.id, value]]), false);
    }
  }
}

/** The next value of a cell at a press: on, off, unknown; the next of a few. Null where it is typed. */
export function presetTurned(column: PresetColumn, preset: StoredPreset): string | null {
  if (column.kind !== 'control' || column.control.domain.kind === 'range' || column.control.domain.kind === 'position')
    return null;
  const texts = domainValues(column.control.domain).map((value) => domainLabel(column.control.domain, value));
  const order = column.control.domain.kind === 'switch' ? [...texts].reverse() : texts;
  const at = order.indexOf(presetText(column, preset));
  return at + 1 < order.length ? order[at + 1] : '';
}

/** With the latency of the whole preset, or of a state; undefined: nobody knows. */
function withLatency(preset: StoredPreset, state: string | undefined, ms: Milliseconds | undefined): StoredPreset {
  const { latencyMs, latencyInState = {}, ...rest } = preset;
  const inState = Object.fromEntries([
    ...Object.entries(latencyInState).filter(([each]) => each !== state),
    ...(state !== undefined && ms !== undefined ? [[state, ms] as const] : []),
  ]);
  const whole = state === undefined ? ms : latencyMs;
  return {
    ...rest,
    ...(whole === undefined ? {} : { latencyMs: whole }),
    ...(Object.keys(inState).length === 0 ? {} : { latencyInState: inState }),
  };
}

/** Some controls with these values, or unknown where there is none; `keeps`: left as they were by a recall. */
function withValues(
  preset: StoredPreset,
  controls: readonly string[],
  values: ReadonlyMap<string, ControlValue>,
  keeps: boolean,
): StoredPreset {
  const { keeps: kept = [], ...rest } = preset;
  const left = [...kept.filter((id) => !controls.includes(id)), ...(keeps ? controls : [])];
  const others = Object.entries(preset.values).filter(([id]) => !controls.includes(id));
  return {
    ...rest,
    values: Object.fromEntries([...others, ...values]),
    ...(left.length > 0 ? { keeps: left } : {}),
  };
}

function valueTyped({ domain }: Control, text: string): ControlValue | undefined {
  if (domain.kind === 'switch')
    return ['on', '1', 'x', '●'].includes(text.toLowerCase())
      ? 1
      : ['off', '0', '-', '○'].includes(text.toLowerCase())
        ? 0
        : undefined;
  if (domain.kind === 'choice')
    return domain.values.find((value) => String(value).toLowerCase() === text.toLowerCase());
  const value = Number(text);
  return inDomain(domain, value) ? value : undefined;
}

const domainText = ({ domain }: Control): string =>
  domain.kind === 'switch'
    ? 'on or off'
    : domain.kind === 'choice'
      ? domain.values.join(', ')
      : domain.kind === 'range'
        ? `${domain.min} to ${domain.max}`
        : `1 to ${domain.count}`;
