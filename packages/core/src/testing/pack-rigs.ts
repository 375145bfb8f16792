import type { Show } from '../model/documents.ts';
import type { Packing, Shopping } from '../model/pack.ts';
import { poweredBuilder } from './power-rigs.ts';
import { withDevice } from './rule-rigs.ts';

export const withPacking = (show: Show, pack: Packing): Show => ({
  ...show,
  rig: { ...show.rig, settings: { ...show.rig.settings, pack } },
});
export const withShopping = (show: Show, shop: Shopping): Show => ({
  ...show,
  rig: { ...show.rig, settings: { ...show.rig.settings, shop } },
});

/** Pedals in a case of four kilograms, the amp in one of its own, the cabinet in none. */
export const packedRig = (): Show =>
  ['switcher', 'drive', 'delay', 'supply'].reduce(
    (show, id) => withDevice(show, id, { case: 'pedals' }),
    withDevice(
      withPacking(poweredBuilder().show, {
        cases: [
          { id: 'pedals', name: 'Pedal case', grams: 4_000, travels: 'ground' },
          { id: 'amp', name: 'Amp case', grams: 3_000, travels: 'ground' },
        ],
      }),
      'combo',
      { case: 'amp' },
    ),
  );
