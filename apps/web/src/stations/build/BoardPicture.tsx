import {
  type BoardOf,
  type BoardSpot,
  overhang,
  overlaps,
  plugThatClears,
  setSpot,
  standing,
  type Standing,
} from '@yunta/core';
import { useShow } from '../../api/rig.tsx';

const margin = 26;

/** The board from above, to scale, the player at its front; each piece is reached and moved by keys. */
export function BoardPicture({ board }: { readonly board: BoardOf }) {
  const { width, depth, tiers = [], surface, pitch = 25 } = board.board;
  const here = standing(board);
  const over = new Set(overlaps(board).flatMap(([a, b]) => [a.device.id, b.device.id]));
  const y = (fromFront: number): number => depth - fromFront;
  return (
    <svg
      className="boardpicture"
      viewBox={`${-margin} ${-margin} ${width + 2 * margin} ${depth + 2 * margin}`}
      role="group"
      aria-label={`${board.place.name} from above, the player at the front`}
    >
      <defs>
        <pattern id="boardover" width="10" height="10" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
          <rect width="10" height="10" fill="var(--stop-wash)" />
          <rect width="3" height="10" fill="var(--stop)" />
        </pattern>
        <pattern id="boardholes" width={pitch} height={pitch} patternUnits="userSpaceOnUse">
          <circle cx={pitch / 2} cy={pitch / 2} r={2} fill="var(--line)" />
        </pattern>
      </defs>
      <rect x={0} y={0} width={width} height={depth} fill="var(--paper)" stroke="var(--ink)" strokeWidth={2} />
      {surface === 'holes' && <rect x={0} y={0} width={width} height={depth} fill="url(#boardholes)" />}
      {surface === 'rails' &&
        Array.from({ length: Math.floor(depth / 80) }, (_, i) => (
          <line key={i} x1={0} x2={width} y1={40 + i * 80} y2={40 + i * 80} stroke="var(--line)" strokeWidth={8} />
        ))}
      {tiers.map(({ from, to, height }) => (
        <g key={`${from} ${to}`}>
          <rect
            x={0}
            y={y(Math.min(to, depth))}
            width={width}
            height={Math.max(0, Math.min(to, depth) - from)}
            fill="none"
            stroke="var(--know)"
            strokeDasharray="8 6"
          />
          <text x={6} y={y(Math.min(to, depth)) + 14} fontSize={12} fill="var(--know)">
            {height} mm free
          </text>
        </g>
      ))}
      <text x={width / 2} y={depth + 18} fontSize={13} textAnchor="middle" fill="var(--soft)">
        front: the foot
      </text>
      <text x={width / 2} y={-10} fontSize={13} textAnchor="middle" fill="var(--soft)">
        {width} mm
      </text>
      {here.map((piece) => (
        <Piece
          key={piece.device.id}
          board={board}
          piece={piece}
          isWrong={over.has(piece.device.id) || overhang(board, piece) > 0}
        />
      ))}
    </svg>
  );
}

function Piece({
  board,
  piece,
  isWrong,
}: {
  readonly board: BoardOf;
  readonly piece: Standing;
  readonly isWrong: boolean;
}) {
  const { show, run, device: selected, selectDevice } = useShow();
  const { device, body, spot, turn, edge, isHeld, plugs } = piece;
  const { depth } = board.board;
  const top = depth - spot.y - body.depth;
  const put = (change: Partial<BoardSpot>) => run(setSpot(show, device.id, { ...device.at!, ...change }));
  const onKey = (event: React.KeyboardEvent) => {
    const step = event.shiftKey ? 10 : 1;
    const move = { ArrowLeft: [-step, 0], ArrowRight: [step, 0], ArrowUp: [0, step], ArrowDown: [0, -step] }[event.key];
    const key = event.key.toLowerCase();
    // What is let into an edge moves along it alone.
    const [along, away] = edge === 'back' || edge === 'front' ? [1, 0] : edge ? [0, 1] : [1, 1];
    if (move) put({ x: device.at!.x + along * move[0], y: device.at!.y + away * move[1] });
    else if (key === 'r') put({ turn: ((turn + 90) % 360) as 0 });
    else if (key === 'h' && !edge) put({ held: !isHeld || undefined });
    else if (event.key === 'Enter' || event.key === ' ') selectDevice(selected === device.id ? null : device.id);
    else return;
    event.preventDefault();
  };
  const isSelected = selected === device.id;
  const perLine = Math.max(4, Math.floor(body.width / charWidth));
  const lines = linesOf(device.name, perLine);
  const size = Math.min(13, Math.max(6, (body.depth - 6) / lines.length));
  const bad = plugs.filter((plug) => plugThatClears(board, piece, plug) === 'none');
  return (
    <g
      role="button"
      tabIndex={0}
      aria-label={`${device.name}, ${spot.x} mm from the left, ${spot.y} mm from the front${turn ? `, turned ${turn}°` : ''}${edge ? `, let into the ${edge} edge` : isHeld ? ', held' : ''}${isWrong ? ', does not stand so' : ''}${bad.length > 0 ? `, ${bad.length} ${bad.length === 1 ? 'plug' : 'plugs'} without room` : ''}`}
      aria-pressed={isSelected}
      className="boardpiece"
      onKeyDown={onKey}
      onClick={() => selectDevice(isSelected ? null : device.id)}
    >
      {plugs.map((plug) => {
        const state = plugThatClears(board, piece, plug);
        const [px, py] = [spot.x + plug.point.x, depth - spot.y - plug.point.y];
        const out = { left: [-1, 0], right: [1, 0], back: [0, -1], front: [0, 1], top: [0, 0] }[plug.side];
        const reach = state === 'straight' ? 14 : 9;
        return state === 'none' ? (
          <path
            key={`${plug.cable.id} ${plug.plug.jack}`}
            d={`M${px - 6} ${py - 6}l12 12m0 -12l-12 12`}
            stroke="var(--stop)"
            strokeWidth={3}
          />
        ) : (
          <line
            key={`${plug.cable.id} ${plug.plug.jack}`}
            x1={px}
            y1={py}
            x2={px + out[0] * reach}
            y2={py + out[1] * reach}
            stroke="var(--run)"
            strokeWidth={5}
          />
        );
      })}
      <rect
        x={spot.x}
        y={top}
        width={body.width}
        height={body.depth}
        fill={isWrong ? 'url(#boardover)' : isSelected ? 'var(--tape)' : 'var(--sheet)'}
        stroke="var(--ink)"
        strokeWidth={isSelected ? 3 : 1.5}
        strokeDasharray={isHeld ? undefined : '6 3'}
      />
      <text fontSize={size} textAnchor="middle" fill="var(--ink)">
        {lines.map((line, i) => (
          <tspan
            key={line}
            x={spot.x + body.width / 2}
            y={top + body.depth / 2 + (i - (lines.length - 1) / 2) * (size + 1) + size / 3}
            {...(line.length > perLine ? { textLength: body.width - 6, lengthAdjust: 'spacingAndGlyphs' } : {})}
          >
            {i < lines.length - 1 ? `${line} ` : line}
          </tspan>
        ))}
      </text>
    </g>
  );
}

/** A letter is about so many mm wide, as it is drawn. */
const charWidth = 7;

/** A name in the lines that an outline has room for; a word that is too long is squeezed. */
function linesOf(name: string, perLine: number): readonly string[] {
  const lines: string[] = [];
  for (const word of name.split(' ')) {
    const last = lines.at(-1);
    if (last !== undefined && `${last} ${word}`.length <= perLine) lines[lines.length - 1] = `${last} ${word}`;
    else lines.push(word);
  }
  return lines;
}
