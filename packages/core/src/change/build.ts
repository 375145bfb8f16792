import type { Board, Body, BuyFacts, Reel } from '../model/body.ts';
import type { Show } from '../model/documents.ts';
import { type Command, command, set } from './command.ts';

/** The outline of a device's type; undefined: nobody knows it. */
export function setBody(show: Show, id: string, body: Body | undefined): Command {
  const device = show.rig.devices[id];
  return command('set-body', { device: device.name }, [set(['devices', id, 'type', 'body'], body, device.type.body)]);
}

/** What a device costs and how long it takes to come; undefined: nobody knows. */
export function setBuy(show: Show, id: string, buy: BuyFacts | undefined): Command {
  const device = show.rig.devices[id];
  return command('set-body', { device: device.name }, [set(['devices', id, 'type', 'buy'], buy, device.type.buy)]);
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
