import { numberTyped, rangeTyped, type PowerOutput, type PowerSupplyFacts } from '@yunta/core';

/** `9 V`, `9-18 V`, `9 – 18`: the lowest and the highest; undefined where it is no range. */
export function voltsTyped(typed: string): readonly [number, number] | undefined {
  return rangeTyped(typed.replace(/\b(v|volts?|hz)\b|(?<=\d)\s*(v|hz)\b/gi, ''));
}

/** `9 V 500 mA, 12 V 400 mA`: what an output may be set to; undefined where it is not understood. */
export function choicesTyped(typed: string): PowerOutput['choices'] | undefined {
  const parts = typed.split(/\s*[,;/]\s*|\s+or\s+/).filter((part) => part !== '');
  const choices = parts.map((part) => {
    const found = /^([\d.,]+)\s*v(?:olts?)?\s*[,@:]?\s*([\d.,]+)\s*(ma|a)?$/i.exec(part);
    const [volts, amount] = [numberTyped(found?.[1] ?? ''), numberTyped(found?.[2] ?? '')];
    if (volts === undefined || amount === undefined) return undefined;
    return { volts, ma: found?.[3]?.toLowerCase() === 'a' ? amount * 1_000 : amount };
  });
  return choices.length === 0 || choices.includes(undefined) ? undefined : (choices as PowerOutput['choices']);
}

const bare = (label: string): string => label.toLowerCase().replace(/^out\s+/, '');

/** Outputs by their labels or what is left of them without *Out*: `1, 2`; *all* for every one. */
export function outputsTyped(outputs: readonly PowerOutput[], typed: string): readonly string[] | undefined {
  if (/^(all|all of it)$/i.test(typed.trim())) return outputs.map(({ id }) => id);
  const words = typed.split(/\s*[,+]\s*|\s+and\s+/).filter((word) => word !== '');
  const found = words.map((word) => outputs.find(({ label }) => bare(label) === bare(word.trim()))?.id);
  return found.length === 0 || found.includes(undefined) ? undefined : (found as string[]);
}

export const outputsWords = (outputs: readonly PowerOutput[], ids: readonly string[]): string =>
  ids.length === outputs.length
    ? 'all'
    : ids.map((id) => bare(outputs.find((output) => output.id === id)?.label ?? id)).join(', ');

type Limit = NonNullable<PowerSupplyFacts['limits']>[number];

/** `1500 mA` or `18 VA`. */
export function limitTyped(typed: string): Pick<Limit, 'ma' | 'va'> | undefined {
  const found = /^([\d.,]+)\s*(ma|a|va|w)$/i.exec(typed.trim());
  const amount = numberTyped(found?.[1] ?? '');
  if (amount === undefined || !found) return undefined;
  const unit = found[2].toLowerCase();
  return unit === 'ma' ? { ma: amount } : unit === 'a' ? { ma: amount * 1_000 } : { va: amount };
}

export const limitWords = ({ ma, va }: Pick<Limit, 'ma' | 'va'>): string =>
  va === undefined ? `${ma ?? 0} mA` : `${va} VA`;
