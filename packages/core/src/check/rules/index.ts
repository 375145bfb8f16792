import type { Rule } from '../define-rule.ts';
import { instrumentCable } from './loudspeakers/instrument-cable.ts';
import { noLoad } from './loudspeakers/no-load.ts';
import { unratedJack } from './loudspeakers/unrated-jack.ts';
import { bankUnselected } from './midi/bank-unselected.ts';
import { chainCircle } from './midi/chain-circle.ts';
import { countsOtherwise } from './midi/counts-otherwise.ts';
import { manyThroughs } from './midi/many-throughs.ts';
import { noPath } from './midi/no-path.ts';
import { overwrittenControl } from './midi/overwritten-control.ts';
import { programOutOfRange } from './midi/program-out-of-range.ts';
import { sharedChannel } from './midi/shared-channel.ts';
import { handOnly } from './recall/hand-only.ts';
import { heldByPedal } from './recall/held-by-pedal.ts';
import { identicalSounds } from './recall/identical-sounds.ts';
import { leftOver } from './recall/left-over.ts';
import { notByFeet } from './recall/not-by-feet.ts';
import { partOutOfReach } from './recall/part-out-of-reach.ts';
import { unquietSlot } from './recall/unquiet-slot.ts';
import { channelUnreachable } from './routing/channel-unreachable.ts';
import { deadEnd } from './routing/dead-end.ts';
import { gateAfterTail } from './routing/gate-after-tail.ts';
import { highGainInLoop } from './routing/high-gain-in-loop.ts';
import { howl } from './routing/howl.ts';
import { moreSoundsThanSlots } from './routing/more-sounds-than-slots.ts';
import { noDestination } from './routing/no-destination.ts';
import { noMute } from './routing/no-mute.ts';
import { noRoute } from './routing/no-route.ts';
import { notOnPath } from './routing/not-on-path.ts';
import { outputsJoined } from './routing/outputs-joined.ts';
import { sendWithoutReturn } from './routing/send-without-return.ts';
import { sharedLoop } from './routing/shared-loop.ts';
import { timeBeforeDrive } from './routing/time-before-drive.ts';
import { delayWithoutTempo } from './show/delay-without-tempo.ts';
import { feetAtOnce } from './show/feet-at-once.ts';
import { notJudged } from './show/not-judged.ts';
import { partWithoutSound } from './show/part-without-sound.ts';
import { unplanned } from './show/unplanned-cues.ts';
import { unusedSound } from './show/unused-sound.ts';

/** Every rule, sorted by id; a test compares this list with the folder. */
export const rules: readonly Rule[] = [
  instrumentCable,
  noLoad,
  unratedJack,
  bankUnselected,
  chainCircle,
  countsOtherwise,
  manyThroughs,
  noPath,
  overwrittenControl,
  programOutOfRange,
  sharedChannel,
  handOnly,
  heldByPedal,
  identicalSounds,
  leftOver,
  notByFeet,
  partOutOfReach,
  unquietSlot,
  channelUnreachable,
  deadEnd,
  gateAfterTail,
  highGainInLoop,
  howl,
  moreSoundsThanSlots,
  noDestination,
  noMute,
  noRoute,
  notOnPath,
  outputsJoined,
  sendWithoutReturn,
  sharedLoop,
  timeBeforeDrive,
  delayWithoutTempo,
  feetAtOnce,
  notJudged,
  partWithoutSound,
  unplanned,
  unusedSound,
];
