import { describe, expect, test } from '@jest/globals';
import { arrangeNow } from '../arrange/arrange.ts';
import { judgeArrangement } from '../arrange/problem.ts';
import { bodyOfType } from '../catalogue/bodies.ts';
import { catalogue } from '../catalogue/types.ts';
import { setCable } from '../change/commands.ts';
import { applySteps, invertSteps } from '../change/steps.ts';
import { demoShow } from '../demo/demo.ts';
import { hallwayRig } from '../demo/by-feet.ts';
import { across, type Board, type Edge, jackPoint, sideOf, turned, turnedPoint, turnedSide } from '../model/body.ts';
import { jacksOf } from '../model/jacks.ts';
import type { Show } from '../model/documents.ts';
import { isWiredAlike } from '../model/wiring.ts';
import { endsIn, onBoard, standsAt, withBoard } from '../testing/board-rigs.ts';
import { editedShow } from '../testing/edited-show.ts';
import { poweredBuilder, withPowerCable } from '../testing/power-rigs.ts';
import { ordinary } from '../testing/rule-rigs.ts';
import { arrangeProblemOf, boardOf, placePieces, setSpot } from './arrangement.ts';
import { boardsOf } from './boards.ts';
import { boardFigures, freeBefore, overhang, overlaps, plugThatClears, standing } from './judge-board.ts';
import { cableRuns, loomsOf, pluggingOrder, shortestRun, slack } from './runs.ts';
import { touchesOf } from './touches.ts';

const done = (show: Show, steps: Parameters<typeof applySteps>[1]): Show => {
  const result = applySteps(show, steps);
  if (!result.ok) throw new Error(JSON.stringify(result.problems));
  return result.value;
};

describe('outlines', () => {
  const pedal = catalogue.find(({ type }) => type.id === 'drive')!.type;
  const jacks = jacksOf(pedal);
  const jack = (id: string) => jacks.find((each) => each.id === id)!;
  test('in at the right, out at the left, power at the back, unless it is told otherwise', () => {
    expect(['in', 'out', 'power-in'].map((id) => sideOf(pedal.body!, jack(id)))).toEqual(['right', 'left', 'back']);
    expect(sideOf({ ...pedal.body!, sides: { in: 'top' } }, jack('in'))).toBe('top');
    expect(sideOf({ ...pedal.body!, jacks: 'back' }, jack('out'))).toBe('back');
  });
  test('turned four times it is as it was, and the point of a jack stays on the outline', () => {
    for (const turn of [0, 90, 180, 270]) {
      const body = turned(pedal.body!, turn);
      for (const each of jacks) {
        const point = turnedPoint(pedal.body!, jackPoint(pedal.body!, jacks, each), turn);
        const side = turnedSide(sideOf(pedal.body!, each), turn);
        const edge = {
          left: point.x === 0,
          right: point.x === body.width,
          front: point.y === 0,
          back: point.y === body.depth,
          top: true,
        };
        expect([turn, each.id, edge[side]]).toEqual([turn, each.id, true]);
      }
    }
    expect(turnedSide('left', 90)).toBe('back');
  });
  test('types that stand on a board have a typical outline', () => {
    expect(bodyOfType({ id: 'drive', archetype: 'pedal' })).toMatchObject({ from: 'typical', width: 70 });
    expect(bodyOfType({ id: 'guitar', archetype: 'instrument' })).toBeUndefined();
  });
});

describe('a board', () => {
  test('has the pieces of its place, and of places that stand on it, too', () => {
    const [board] = boardsOf(onBoard().rig);
    expect(board.pieces.map(({ device }) => device.id)).toEqual(['switcher', 'drive', 'delay', 'supply']);
    const both = withBoard(onBoard(), { also: ['combo'] });
    expect(boardsOf(both.rig)[0].pieces.map(({ device }) => device.id)).toContain('cabinet');
  });
  test('says what overlaps, overhangs, and which plug clears', () => {
    const board = boardOf(onBoard(), 'board')!;
    expect(overlaps(board)).toEqual([]);
    expect(standing(board).every((piece) => overhang(board, piece) === 0)).toBe(true);
    const drive = standing(board).find(({ device }) => device.id === 'drive')!;
    expect(drive.plugs.map((plug) => plugThatClears(board, drive, plug))).toContain('straight');
    const near = boardOf(standsAt(onBoard(), { drive: { x: 300, y: 20 } }), 'board')!;
    const tight = standing(near).find(({ device }) => device.id === 'drive')!;
    expect(tight.plugs.map((plug) => plugThatClears(near, tight, plug))).toContain('angled');
  });
  test('is arranged as one edit; what is held stays; undone it is as it was', () => {
    const show = standsAt(withBoard(onBoard()), { drive: { x: 420, y: 60, held: true } });
    const board = boardOf(show, 'board')!;
    const problem = arrangeProblemOf(show, board);
    const { best, cost } = arrangeNow(problem, 3, 20);
    expect(judgeArrangement(problem, best!)).toEqual(cost);
    const command = placePieces(board, best!)!;
    const next = done(show, command.steps);
    expect(next.rig.devices.drive.at).toEqual({ x: 420, y: 60, held: true });
    expect(overlaps(boardOf(next, 'board')!)).toEqual([]);
    const after = boardOf(next, 'board')!;
    for (const piece of standing(after))
      for (const plug of piece.plugs)
        if (piece.device.id !== 'drive') expect(plugThatClears(after, piece, plug)).not.toBe('none');
    expect(applySteps(next, invertSteps(command.steps))).toEqual({ ok: true, value: show });
    expect(placePieces(after, best!)).toBeNull();
  });
  test('says what stands, what it weighs and what share it takes (worked by hand)', () => {
    // Switcher 1000, drive 400, delay 800, supply 900 g; 20700, 8400, 18850 and 17100 of 320000 mm².
    expect(boardFigures(boardOf(onBoard(), 'board')!)).toEqual({ stand: 4, wrong: 0, grams: 3_100, percent: 20 });
  });
  test('changes neither signal nor proof', () => {
    const show = onBoard();
    expect(isWiredAlike(show.rig, done(show, setSpot(show, 'drive', { x: 0, y: 0 }).steps).rig)).toBe(true);
  });
});

describe('cables', () => {
  test('run from jack to jack along the edges, with slack, to the next five centimetres (worked by hand)', () => {
    const show = withPowerCable(onBoard(), 'drive', { length: null });
    const power = cableRuns(show.rig).find(({ cable }) =>
      cable.plugs.some(({ device, jack }) => device === 'drive' && jack === 'power-in'),
    )!;
    const boards = boardsOf(show.rig);
    const mm = shortestRun(boards, power.cable)!;
    const [from, to] = ['supply', 'drive'].map((id) => {
      const piece = standing(boards[0]).find(({ device }) => device.id === id)!;
      const plug = piece.plugs.find(({ cable }) => cable.id === power.cable.id)!;
      return { x: piece.spot.x + plug.point.x, y: piece.spot.y + plug.point.y };
    });
    expect(mm).toBe(Math.abs(from.x - to.x) + Math.abs(from.y - to.y));
    expect(power.runs! * 1000).toBeGreaterThanOrEqual(mm * (1 + slack.share) + slack.mm);
    expect(Math.round(power.runs! * 1000) % 50).toBe(0);
    expect(power.metres).toBe(power.runs);
    expect(power.ends.map(({ connector }) => connector)).toEqual(['barrel 2.1 mm', 'barrel 2.1 mm']);
  });
  test('what was measured wins; an end on no board has no run', () => {
    const runs = cableRuns(onBoard().rig);
    expect(runs.every(({ cable, metres }) => metres === (cable.length ?? metres))).toBe(true);
    const guitar = runs.find(({ cable }) => cable.plugs.some(({ device }) => device === 'guitar'))!;
    expect(guitar).toMatchObject({ runs: null });
    expect(guitar.ends[0].clears).toBeUndefined();
  });
  test('each end says its connector and gender', () => {
    const all = cableRuns(onBoard().rig).flatMap(({ ends }) => ends.map(({ connector }) => connector));
    expect(new Set(all)).toEqual(
      new Set(['6.3 mm plug', '6.3 mm plug, loudspeaker', 'five-pin plug, male', 'barrel 2.1 mm']),
    );
  });
});

describe('looms and order', () => {
  test('a loom is as long as its longest member', () => {
    const show = onBoard();
    const [first, second] = Object.keys(show.rig.cables);
    const cables = {
      ...show.rig.cables,
      [first]: { ...show.rig.cables[first], loom: 'amp', length: 5 as never },
      [second]: { ...show.rig.cables[second], loom: 'amp', length: 6 as never },
    };
    const looms = loomsOf(cableRuns({ ...show.rig, cables }));
    expect(looms.map(({ name, metres, members, unknown }) => [name, metres, members.length, unknown])).toEqual([
      ['amp', 6, 2, 0],
    ]);
  });
  test('loudspeakers are plugged in first, the mains last', () => {
    const kinds = pluggingOrder(cableRuns(demoShow().rig)).map(({ cable }) => cable.kind);
    expect(kinds[0]).toBe('speaker');
    expect(kinds.at(-1)).toBe('mains');
  });
});

describe('touches', () => {
  test('one a part for the unit whose slots play it; none for what it switches', () => {
    const touches = touchesOf(demoShow());
    expect(touches.get('switcher')).toBeGreaterThan(30);
    expect(touches.get('drive-1')).toBeUndefined();
  });
  test('of a rig that feet play, the pedals that change', () => {
    const touches = touchesOf(hallwayRig());
    expect([...touches.values()].reduce((sum, count) => sum + count, 0)).toBeGreaterThan(0);
    expect(touchesOf(ordinary().show).get('switcher')).toBe(2);
  });
});

describe('an edge panel', () => {
  const panelled = (edge: Edge, board: Partial<Board> = {}) =>
    standsAt(
      withBoard(
        poweredBuilder()
          .device('guitar-2', 'guitar', 'Second guitar')
          .device('second', 'drive', 'Second drive')
          .device('panel', 'edge-panel', 'Panel')
          .cables('Second guitar > Panel Instrument in', 'Panel Instrument out > Second drive').show,
        board,
      ),
      { second: { x: 300, y: 200 }, panel: { x: 100, y: 90, edge } },
    );
  const panelOf = (show: Show) => {
    const board = boardOf(show, 'board')!;
    return { board, panel: standing(board).find(({ device }) => device.id === 'panel')! };
  };
  test.each([
    ['back', { x: 100, y: 355 }],
    ['front', { x: 100, y: 0 }],
    ['left', { x: 0, y: 90 }],
    ['right', { x: 650, y: 90 }],
  ] as const)('stands flush with the %s edge, plugged into outside and inside', (edge, spot) => {
    const { board, panel } = panelOf(panelled(edge));
    expect(panel.spot).toEqual(spot);
    expect(overhang(board, panel)).toBe(0);
    const [outside, inside] = ['instrument-in', 'instrument-out'].map((jack) =>
      panel.plugs.find(({ plug }) => plug.jack === jack)!,
    );
    expect([outside.side, inside.side]).toEqual([edge, across[edge]]);
    expect(freeBefore(board, panel, outside)).toBe(Infinity);
    expect(freeBefore(board, panel, inside)).toBeLessThan(800);
    expect(plugThatClears(board, panel, outside)).toBe('straight');
  });
  test('goes with the edge where the board becomes another, and stays where it is when the rest is arranged', () => {
    expect(panelOf(panelled('back', { depth: 500 })).panel.spot).toEqual({ x: 100, y: 455 });
    const show = panelled('back');
    const { board } = panelOf(show);
    const problem = arrangeProblemOf(show, board);
    const { best } = arrangeNow(problem, 3, 20);
    const next = editedShow(show, () => placePieces(board, best!)!);
    expect(next.rig.devices.panel.at).toEqual({ x: 100, y: 90, edge: 'back' });
    expect(overlaps(boardOf(next, 'board')!)).toEqual([]);
  });
  test('lets a cable run to its inside (worked by hand)', () => {
    const show = panelled('back');
    const runs = cableRuns(show.rig);
    const inside = runs.find(({ cable }) => cable.plugs.some(({ device }) => device === 'second'))!;
    const outside = runs.find(({ cable }) => cable.plugs.some(({ device }) => device === 'guitar-2'))!;
    // The drive’s input is at its right, 60 mm deep: 370, 260. The panel’s second jack of four is two fifths of its
    // 150 mm from its left, and its inside 355 mm from the front: 160, 355.
    expect(shortestRun(boardsOf(show.rig), inside.cable)).toBe(210 + 95);
    expect(outside.runs).toBeNull();
  });
});

describe('what is on the ends of a cable', () => {
  const before = onBoard();
  const show = endsIn(before, { plug: 'XLR, male', bent: true });
  const endAt = (from: Show) =>
    cableRuns(from.rig)
      .flatMap(({ ends }) => ends)
      .find(({ entered }) => entered !== undefined);
  test('is as entered, beside what the jack takes', () => {
    expect(endAt(show)).toMatchObject({ device: 'Drive', takes: '6.3 mm plug', connector: 'XLR, male', bent: true });
    expect(endAt(onBoard())).toBeUndefined();
  });
  test('goes with the plug to another jack, and stays where another end moves', () => {
    const cable = Object.values(show.rig.cables).find(({ ends }) => ends)!;
    const other = cable.plugs.findIndex(({ device }) => device !== 'drive');
    const moved = (index: number, jack: string) =>
      editedShow(show, (now) =>
        setCable(
          now,
          cable.id,
          'plugs',
          cable.plugs.map((plug, i) => (i === index ? { device: 'switcher' as never, jack } : plug)),
        ),
      );
    expect(endAt(moved(1 - other, 'return-4'))).toMatchObject({ device: 'Switcher', connector: 'XLR, male' });
    expect(endAt(moved(other, 'send-4'))).toMatchObject({ device: 'Drive', connector: 'XLR, male' });
  });
  test('changes neither signal nor proof', () => {
    expect(isWiredAlike(before.rig, show.rig)).toBe(true);
  });
});
