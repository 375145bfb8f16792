import type { Board, Body, BuyFacts, Reel } from '../model/body.ts';
import type { Show } from '../model/documents.ts';
import type { TypePower } from '../model/power.ts';
import { anySaid } from '../units/said.ts';
import { type Command, command, set } from './command.ts';

/** The outline of a device's type; undefined: nobody knows it. */
export function setBody(show: Show, id: string, body: Body | undefined): Command {
  const device = show.rig.devices[id];
  return command('set-body', { device: device.name }, [set(['devices', id, 'type', 'body'], body, device.type.body)]);
}

/** What a device costs, how long it takes to come, and whether it is still to be bought. */
export function setBuy(show: Show, id: string, buy: BuyFacts): Command {
  const device = show.rig.devices[id];
  return command('set-buy', { device: device.name }, [
    set(['devices', id, 'type', 'buy'], anySaid(buy), device.type.buy),
  ]);
}

/** What the pieces of a place stand on; undefined: nothing. */
export function setBoard(show: Show, id: string, board: Board | undefined): Command {
  const place = show.rig.places[id];
  return command('set-board', { place: place.name }, [set(['places', id, 'board'], board, place.board)]);
}

export const setReels = (show: Show, reels: readonly Reel[]): Command =>
  command('set-setting', { field: 'reels' }, [
    set(['settings', 'reels'], reels.length > 0 ? reels : undefined, show.rig.settings.reels),
  ]);

/** Facts that a device is given because its type has them today. */
export interface TypicalFacts {
  readonly id: string;
  readonly power: TypePower | undefined;
  readonly body: Body | undefined;
}

/** Gives devices of which nobody has said how they are powered or how large they are what is typical of their type. */
export function takeTypical(show: Show, facts: readonly TypicalFacts[]): Command {
  return command(
    'take-typical',
    { count: facts.length },
    facts.flatMap(({ id, power, body }) => {
      const { type } = show.rig.devices[id];
      return [
        ...(power && !type.power ? [set(['devices', id, 'type', 'power'], power, undefined)] : []),
        ...(body && !type.body ? [set(['devices', id, 'type', 'body'], body, undefined)] : []),
      ];
    }),
  );
}
