import { setParam, wantOrder } from '../change/commands.ts';
import { applySteps } from '../change/steps.ts';
import { anatomyOf } from '../model/archetypes/registry.ts';
import type { Show } from '../model/documents.ts';
import { ShowBuilder } from './build-show.ts';

/** A switcher whose slots store the order of its four loops, a drive and an echo in the first two of them. */
export function ordered(...more: readonly string[]): ShowBuilder {
  const rig = new ShowBuilder().text('guitar > switcher = loop switcher, 8 loops, order by slot');
  rig
    .do(setParam(rig.show, 'switcher', 'loops', 4))
    .text('1: drive; 2: echo = delay\nswitcher > amp = valve amp one > cabinet');
  for (const id of ['a', 'b', 'c', ...more])
    rig.sound(id, { name: id.toUpperCase(), pedals: { drive: 'on', echo: 'on' } });
  rig.show = placed(placed(rig.show, 'a', [2, 1, 3, 4]), 'b', [3, 4, 1, 2]);
  return rig.laid();
}

/** The same with the loops at these places in a sound; two may stand at one. */
export function placed(show: Show, sound: string, places: readonly number[]): Show {
  const [order] = anatomyOf(show.rig.devices.switcher.type).orders!;
  const result = applySteps(
    show,
    wantOrder(show, [sound], 'switcher', order, new Map(order.of.map(({ control }, i) => [control, places[i]]))).steps,
  );
  if (!result.ok) throw new Error(JSON.stringify(result.problems));
  return result.value;
}
