import type { LossyPoint } from './losses.ts';

/** A message or a pulse that is lost: which of those of its event, and where. */
export interface Loss {
  readonly point: number;
  readonly kind: LossyPoint['kind'];
  /** The sender, the end of the cable, the receiver, or the device with the contact input. */
  readonly device: string;
}

export const lossAt = ({ id, kind, device }: LossyPoint): Loss => ({ point: id, kind, device: device.id });

/** One step of a sequence: what happens, by ids, with what was lost on the way. */
export type SequenceStep = (
  | { readonly kind: 'press'; readonly slot: string; readonly never?: boolean }
  | { readonly kind: 'bank'; readonly controller: string; readonly by: 1 | -1 }
  | { readonly kind: 'hold' | 'release'; readonly controller: string; readonly momentary: string }
  | { readonly kind: 'foot'; readonly device: string; readonly switch: string; readonly stray: boolean }
  | { readonly kind: 'cue'; readonly control: string; readonly value: string }
  | { readonly kind: 'outside'; readonly device: string; readonly channel: number; readonly program: number }
  | { readonly kind: 'restart'; readonly device: string }
) & {
  readonly lost?: Loss;
};

/** What power-up must bring, where it leaves a choice. */
export interface Need {
  readonly device: string;
  readonly part: string;
  readonly value: string;
}

/** What is lost while a controller's own slot fires at power-up. */
export interface LostAtPowerUp extends Loss {
  readonly firing: string;
}

/** What leads to a wrong sound: what power-up must bring, and what is done then. */
export interface Sequence {
  readonly needs: readonly Need[];
  readonly lostAtPowerUp?: LostAtPowerUp;
  readonly steps: readonly SequenceStep[];
}
