import type { Rule } from '../define-rule.ts';
import { programOutOfRange } from './midi/program-out-of-range.ts';
import { sharedChannel } from './midi/shared-channel.ts';
import { leftOver } from './recall/left-over.ts';
import { unquietSlot } from './recall/unquiet-slot.ts';
import { deadEnd } from './routing/dead-end.ts';
import { noRoute } from './routing/no-route.ts';

/** Every rule, sorted by id; a test compares this list with the folder. */
export const rules: readonly Rule[] = [programOutOfRange, sharedChannel, leftOver, unquietSlot, deadEnd, noRoute];
