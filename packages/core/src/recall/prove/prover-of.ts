import type { Show } from '../../model/documents.ts';
import { playedParts } from '../../model/set-order.ts';
import { buildWiring } from '../../model/wiring.ts';
import { compiler } from '../../program/compile.ts';
import type { Limits } from '../explore/state-space.ts';
import { buildStateModel } from '../state/build-state-model.ts';
import { Prover } from './prover.ts';

/** The proof of a show, ready to be asked. */
export function proverOf(show: Show, limits?: Limits): Prover {
  const wiring = buildWiring(show.rig);
  return new Prover(buildStateModel(wiring, compiler(wiring)), playedParts(show), limits);
}
