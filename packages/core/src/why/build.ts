import type { BoardOf } from '../build/boards.ts';
import { boardFigures } from '../build/judge-board.ts';
import { type CableRun, rounding, slack } from '../build/runs.ts';
import { cableWeight, type ArrangeCost } from '../arrange/problem.ts';
import type { AtHome } from '../home/at-home.ts';
import { type FilledCase } from '../pack/cases.ts';
import type { Bill, PartToBuy } from '../pack/parts.ts';
import type { Device } from '../model/rig.ts';
import { kilograms, tenths } from '../units/shown.ts';
import { rangeText } from '../units/typed.ts';
import { counted, type Evidence } from './evidence.ts';

const outlines = (devices: readonly Device[]): Evidence['rests'] =>
  devices.some(({ type }) => type.body?.from === 'typical') ? 'typical' : 'entered';
const onIt = ({ pieces }: BoardOf): readonly Device[] => pieces.map(({ device }) => device);

/** What a board weighs with its pieces. */
export const boardWeight = (board: BoardOf): Evidence => ({
  of: `Weight of ${board.place.name}`,
  value: kilograms(boardFigures(board).grams),
  inputs: [
    ['the board itself', board.board.grams === undefined ? 'nobody has said' : kilograms(board.board.grams)],
    ...board.pieces.map(({ device, body }): Evidence['inputs'][number] => [
      device.name,
      body.grams === undefined ? 'nobody has said' : kilograms(body.grams),
    ]),
  ],
  formula: 'the sum of them',
  source: 'weights as entered or typical; cables are not counted',
  rests: outlines(onIt(board)),
});

/** How much of a board its pieces cover. */
export const boardArea = (board: BoardOf): Evidence => ({
  of: `Share of ${board.place.name}`,
  value: `${boardFigures(board).percent} %`,
  inputs: [
    ['the board', `${board.board.width} × ${board.board.depth} mm`],
    ...board.pieces.map(({ device, body }): Evidence['inputs'][number] => [
      device.name,
      `${body.width} × ${body.depth} mm`,
    ]),
  ],
  formula: 'areas of the pieces / area of the board × 100',
  source: 'outlines as entered or typical; plugs are not counted',
  rests: outlines(onIt(board)),
});

/** How long a cable has to be on its board; `shown`: as it is shown. */
export const cableRun = ({ cable, shortest, runs }: CableRun, shown: string): Evidence => ({
  of: `${cable.tag} runs`,
  value: runs === null ? '' : shown,
  inputs: [
    ['from jack to jack', `${shortest ?? 0} mm`],
    ['slack', `${Math.round(slack.share * 100)} % and ${slack.mm} mm`],
    ['rounded up to', `${rounding} mm`],
  ],
  formula: 'from jack to jack × 1.1 + slack, along the edges of the board',
  source: 'positions as they stand; slack is common practice',
  rests: 'entered',
});

/** What an arrangement costs the foot. */
export const arrangedWalk = ({ walk }: ArrangeCost): Evidence => ({
  of: 'Way of the foot in the set',
  value: `${(walk / 1000).toFixed(1)} m`,
  inputs: [
    ['touches × way to each piece', `${Math.round(walk)} mm`],
    ['from', 'the middle of the front of the board'],
  ],
  formula: 'touches in the set × way of the foot, added up',
  source: 'presses of the set as planned, positions as they stand',
  rests: 'entered',
});

/** What an arrangement costs in cable. */
export const arrangedCable = ({ cable }: ArrangeCost): Evidence => ({
  of: 'Cable from jack to jack',
  value: `${(cable / 1000).toFixed(2)} m`,
  inputs: [
    ['along the edges of the board', `${Math.round(cable)} mm`],
    ['a millimetre counts as', `${cableWeight} mm of the foot’s way`],
  ],
  formula: 'across + along of every cable between two pieces of the board, added up, without slack',
  source: 'positions as they stand; what a millimetre counts is a choice',
  rests: 'entered',
});

/** How many of a part are to be bought. */
export const partBought = ({ name, needed, spares, have, buy, by }: PartToBuy): Evidence => ({
  of: `${name} to buy`,
  value: String(buy),
  inputs: [
    ['needed', String(needed)],
    ['by', by.length > 0 ? by.join(', ') : 'you'],
    ['spares', String(spares)],
    ['there', String(have)],
  ],
  formula: 'needed + spares − there, never below nothing',
  source: 'counted from the patch; two spares of every connector, one of what is whole (common practice)',
  rests: 'entered',
});

/** What all of it costs. */
export const billTotal = ({ low, high, unpriced }: Bill, parts: readonly PartToBuy[]): Evidence => ({
  of: 'To pay',
  value: rangeText(low, high),
  inputs: [
    ...parts.flatMap(({ name, buy, price }): Evidence['inputs'] =>
      buy > 0 && price ? [[`${buy} × ${name}`, rangeText(...price)]] : [],
    ),
    ['without a price', counted(unpriced, 'part')],
  ],
  formula: 'the sum of what is to be bought, low and high',
  source: 'prices as entered',
  rests: 'entered',
});

/** What a case weighs, packed. */
export const caseWeight = ({ case: each, contents, grams, unweighed }: FilledCase): Evidence => ({
  of: `Weight of ${each.name}`,
  value: `${unweighed > 0 ? 'at least ' : ''}${kilograms(grams)}`,
  inputs: [
    ['empty', each.grams === undefined ? 'nobody has said' : kilograms(each.grams)],
    ...contents.map((one): Evidence['inputs'][number] => [
      one.count > 1 ? `${one.count} × ${one.name}` : one.name,
      one.grams === null ? 'nobody has said' : kilograms(one.grams),
    ]),
  ],
  formula: 'the sum of them',
  source: 'weights as entered or typical',
  rests: outlines(contents.flatMap(({ device }) => (device ? [device] : []))),
});

/** What comes along weighs. */
export const weightAlong = ({ left, figures }: AtHome): Evidence => ({
  of: `Weight with ${left.length} at home`,
  value: `${figures.unweighed > 0 ? '≥ ' : ''}${kilograms(figures.grams)}`,
  inputs: [
    ['pieces that come along', String(figures.pieces)],
    ['of unknown weight', String(figures.unweighed)],
  ],
  formula: 'the sum of the weights of the pieces that come along, without cables and cases',
  source: 'weights as entered or typical',
  rests: figures.isTypical ? 'typical' : 'entered',
});

/** How many songs are lost with some pieces at home. */
export const songsLost = ({ left, songs, isProved }: AtHome, nameOf: (id: string) => string): Evidence => ({
  of: `Songs lost with ${left.length} at home`,
  value: String(songs.length),
  inputs: [
    ['at home', left.length > 0 ? left.map(nameOf).join(', ') : 'nothing'],
    ['lost', songs.length > 0 ? songs.join(', ') : 'none'],
    ['looked into', isProved ? 'every choice' : `piece by piece, ${tenths(left.length)} of them`],
  ],
  formula: 'songs of which a sound wants a piece on that is not there; the fewest of all choices',
  source: 'the sounds’ own wants, over the set',
  rests: isProved ? 'exact' : 'entered',
});
