import type { FaultKind } from '../../model/rig.ts';
import type { ModelDevice } from '../state/state-model.ts';

/** Where a message or a pulse can be lost. */
export interface LossyPoint {
  /** Counted through an event in the order in which they come up. */
  readonly id: number;
  readonly kind: Exclude<FaultKind, 'restart'>;
  /** The sender, the end of the cable, the receiver, or the device with the contact input. */
  readonly device: ModelDevice;
}
