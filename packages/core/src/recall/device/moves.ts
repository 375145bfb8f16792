import type { ControlValue } from '../../model/anatomy.ts';
import type { ModelControl } from '../state/state-model.ts';
import type { Store } from '../state/store.ts';
import type { Values } from '../state/values.ts';

export function flip(store: Store, values: Values, control: ModelControl): void {
  if (!store.has(control.variable) || control.held) return;
  const [off, on] = control.options;
  store.set(
    control.variable,
    values.apply(store.get(control.variable), (value) => (value === off ? on : off)),
  );
}

export function step(store: Store, values: Values, control: ModelControl, by: number, wrap: boolean): void {
  if (!store.has(control.variable) || control.held) return;
  const { options } = control;
  const count = options.length;
  store.set(
    control.variable,
    values.apply(store.get(control.variable), (value) => {
      const at = options.indexOf(value) + by;
      return options[wrap ? ((at % count) + count) % count : Math.min(count - 1, Math.max(0, at))];
    }),
  );
}

/** From each value to the one that the table has for it; from any other it does not move. */
export function turn(
  store: Store,
  values: Values,
  control: ModelControl,
  table: Readonly<Record<string, ControlValue>>,
): void {
  if (!store.has(control.variable) || control.held) return;
  store.set(
    control.variable,
    values.apply(store.get(control.variable), (value) => {
      const to = table[String(values.controlValue(value))];
      return to === undefined ? value : values.id(to);
    }),
  );
}

export const isOn = (controlValue: ControlValue | undefined): boolean =>
  typeof controlValue === 'number' ? controlValue !== 0 : controlValue !== 'off';
