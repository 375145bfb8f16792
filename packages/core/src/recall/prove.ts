import type { Show } from '../model/documents.ts';
import { partsInSetOrder } from '../model/set-order.ts';
import { wire } from '../model/wiring.ts';
import { compiler } from '../program/compile.ts';
import type { Limits } from './machine.ts';
import { buildPlant } from './plant.ts';
import { Prover } from './proof.ts';

/** The proof of a show, ready to be asked. */
export function proverOf(show: Show, limits?: Limits): Prover {
  const wiring = wire(show.rig);
  return new Prover(buildPlant(wiring, compiler(wiring)), partsInSetOrder(show), limits);
}
