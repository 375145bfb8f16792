import type { Rule } from '../define-rule.ts';
import { cableTooShort } from './build/cable-too-short.ts';
import { caseTooSmall } from './build/case-too-small.ts';
import { endDoesNotFit } from './build/end-does-not-fit.ts';
import { heavyCase } from './build/heavy-case.ts';
import { noRoomForPlug } from './build/no-room-for-plug.ts';
import { offTheBoard } from './build/off-the-board.ts';
import { panelConnectorMissing } from './build/panel-connector-missing.ts';
import { partMissing } from './build/part-missing.ts';
import { instrumentCable } from './loudspeakers/instrument-cable.ts';
import { noLoad } from './loudspeakers/no-load.ts';
import { unratedJack } from './loudspeakers/unrated-jack.ts';
import { bankUnselected } from './midi/bank-unselected.ts';
import { chainCircle } from './midi/chain-circle.ts';
import { countsOtherwise } from './midi/counts-otherwise.ts';
import { displayNames } from './midi/display-names.ts';
import { manyThroughs } from './midi/many-throughs.ts';
import { noPath } from './midi/no-path.ts';
import { overwrittenControl } from './midi/overwritten-control.ts';
import { programOutOfRange } from './midi/program-out-of-range.ts';
import { sharedChannel } from './midi/shared-channel.ts';
import { batteryShort } from './power/battery-short.ts';
import { bothEarths } from './power/both-earths.ts';
import { digitalShares } from './power/digital-shares.ts';
import { joinedOutputs } from './power/joined-outputs.ts';
import { littleHeadroom } from './power/little-headroom.ts';
import { mainsOverload } from './power/mains-overload.ts';
import { noFreeOutput } from './power/no-free-output.ts';
import { noPower } from './power/no-power.ts';
import { otherMains } from './power/other-mains.ts';
import { otherPlug } from './power/other-plug.ts';
import { overCurrent } from './power/over-current.ts';
import { voltageDrop } from './power/voltage-drop.ts';
import { wrongCurrent } from './power/wrong-current.ts';
import { wrongPolarity } from './power/wrong-polarity.ts';
import { wrongVolts } from './power/wrong-volts.ts';
import { copyDiffers } from './recall/copy-differs.ts';
import { footChangesMeaning } from './recall/foot-changes-meaning.ts';
import { handOnly } from './recall/hand-only.ts';
import { heldSound } from './recall/held-sound.ts';
import { heldByPedal } from './recall/held-by-pedal.ts';
import { identicalSounds } from './recall/identical-sounds.ts';
import { jumpsOnEntry } from './recall/jumps-on-entry.ts';
import { leftOver } from './recall/left-over.ts';
import { notByFeet } from './recall/not-by-feet.ts';
import { oddOrder } from './recall/odd-order.ts';
import { partOutOfReach } from './recall/part-out-of-reach.ts';
import { twinDiffers } from './recall/twin-differs.ts';
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
import { notIsolated } from './routing/not-isolated.ts';
import { notOnPath } from './routing/not-on-path.ts';
import { outputsJoined } from './routing/outputs-joined.ts';
import { polesMismatch } from './routing/poles-mismatch.ts';
import { sendWithoutReturn } from './routing/send-without-return.ts';
import { sharedLoop } from './routing/shared-loop.ts';
import { stereoEnds } from './routing/stereo-ends.ts';
import { orderRepeats } from './routing/order-repeats.ts';
import { timeBeforeDrive } from './routing/time-before-drive.ts';
import { twoSidesInMono } from './routing/two-sides-in-mono.ts';
import { flyingBattery } from './safety/flying-battery.ts';
import { unearthed } from './safety/unearthed.ts';
import { delayWithoutTempo } from './show/delay-without-tempo.ts';
import { feetAtOnce } from './show/feet-at-once.ts';
import { instrumentNotHeard } from './show/instrument-not-heard.ts';
import { instrumentUnknown } from './show/instrument-unknown.ts';
import { loopNotAsMeant } from './show/loop-not-as-meant.ts';
import { notJudged } from './show/not-judged.ts';
import { partWithoutSound } from './show/part-without-sound.ts';
import { unplanned } from './show/unplanned-cues.ts';
import { unusedSound } from './show/unused-sound.ts';

/** Every rule, sorted by id; a test compares this list with the folder. */
export const rules: readonly Rule[] = [
  cableTooShort,
  caseTooSmall,
  endDoesNotFit,
  heavyCase,
  noRoomForPlug,
  offTheBoard,
  panelConnectorMissing,
  partMissing,
  instrumentCable,
  noLoad,
  unratedJack,
  bankUnselected,
  chainCircle,
  countsOtherwise,
  displayNames,
  manyThroughs,
  noPath,
  overwrittenControl,
  programOutOfRange,
  sharedChannel,
  batteryShort,
  bothEarths,
  digitalShares,
  joinedOutputs,
  littleHeadroom,
  mainsOverload,
  noFreeOutput,
  noPower,
  otherMains,
  otherPlug,
  overCurrent,
  voltageDrop,
  wrongCurrent,
  wrongPolarity,
  wrongVolts,
  copyDiffers,
  footChangesMeaning,
  handOnly,
  heldByPedal,
  heldSound,
  identicalSounds,
  jumpsOnEntry,
  leftOver,
  notByFeet,
  oddOrder,
  partOutOfReach,
  twinDiffers,
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
  notIsolated,
  notOnPath,
  orderRepeats,
  outputsJoined,
  polesMismatch,
  sendWithoutReturn,
  sharedLoop,
  stereoEnds,
  timeBeforeDrive,
  twoSidesInMono,
  flyingBattery,
  unearthed,
  delayWithoutTempo,
  feetAtOnce,
  instrumentNotHeard,
  instrumentUnknown,
  loopNotAsMeant,
  notJudged,
  partWithoutSound,
  unplanned,
  unusedSound,
];
