import type { WeaveLayout } from './signal-diagram-layout.ts';
import { strip } from './signal-diagram-layout.ts';

const escaped = (text: string): string =>
  text.replace(/[&<>"]/g, (sign) => ({ '&': '&amp;', '<': '&lt;', '>': '&gt;', '"': '&quot;' })[sign]!);

const rows = 84;

/** A name in one line, or broken at a space into two. */
function lines(text: string): readonly string[] {
  if (text.length <= 10) return [text];
  const spaces = [...text.matchAll(/ /g)].map((match) => match.index);
  const at = spaces.filter((i) => i <= 10).at(-1) ?? spaces[0];
  return at === undefined ? [text] : [text.slice(0, at), text.slice(at + 1)];
}

/** The run as a drawing of its own, black on white: for paper, and to be saved as SVG. */
export function diagramSvg(layout: WeaveLayout): string {
  const { rails, jumpers, passes, route } = layout;
  const text = (x: number, y: number, content: string, size: number, more = ''): string =>
    `<text x="${x}" y="${y}" font-size="${size}" font-family="Roboto, sans-serif"${more}>${escaped(content)}</text>`;
  const centred = (x: number, y: number, content: string, size: number, more = ''): string =>
    lines(content)
      .map((line, i, all) =>
        text(x, y + 4 + (all.length === 1 ? 0 : i * 11 - 5.5), line, size, ` text-anchor="middle"${more}`),
      )
      .join('');
  const tape = (x: number, y: number, width: number, height: number): string => {
    const [l, r, t, b] = [x - width / 2, x + width / 2, y - height / 2, y + height / 2];
    return `${l + 5},${t} ${r},${t} ${r - 5},${b} ${l},${b}`;
  };
  const run = (d: string, width: number, ink: string): string =>
    `<path d="${d}" stroke="${ink}" stroke-width="${width}" stroke-linejoin="round" fill="none"/>`;
  const parts = [
    ...layout.rows.map(
      (row) => text(-rows + 4, row.y, row.name, 12, ' font-weight="bold"') + text(-rows + 4, row.y + 14, row.note, 10),
    ),
    ...rails.map(
      (rail) =>
        `<rect x="${rail.x + 2}" y="${rail.y - 12}" width="${rail.width - 4}" height="24" fill="#efe3c6" stroke="#000"/>`,
    ),
    ...jumpers.map((jumper) => {
      const edge = jumper.railY - 12 * Math.sign(jumper.railY - jumper.y || 1);
      return (
        [-18, 18]
          .map(
            (by) =>
              `<path d="M ${jumper.x + by} ${edge} V ${jumper.y}" stroke="#555" stroke-dasharray="4 3" fill="none"/>`,
          )
          .join('') +
        `<polygon points="${tape(jumper.x, jumper.y, jumper.width, 30)}" fill="#fff" stroke="#555" stroke-dasharray="4 3"/>` +
        centred(jumper.x, jumper.y, jumper.title, 9)
      );
    }),
    ...[...route.paths]
      .sort((one, other) => Number(other.isStereo) - Number(one.isStereo))
      .map(({ d, isStereo }) => run(d, isStereo ? 7 : 3.5, '#000')),
    ...route.paths.filter(({ isStereo }) => isStereo).map(({ d }) => run(d, 2.5, '#fff')),
    ...route.crossings.map(
      ({ x, y }) =>
        `<rect x="${x - 6}" y="${y - 5}" width="12" height="10" fill="#fff"/>` +
        run(`M ${x} ${y - 6} V ${y + 6}`, 3.5, '#000'),
    ),
    ...route.sides.map(({ x, y, side }) => text(x, y, side === 'left' ? 'L' : 'R', 9)),
    ...rails.map((rail) => (rail.label ? text(rail.label.x, rail.label.y, rail.name, 11) : '')),
    ...passes.map((placed) => {
      const middle = placed.x + placed.width / 2;
      if (placed.onRail)
        return placed.note === '' ? '' : text(middle, placed.y + 26, placed.note, 10, ' text-anchor="middle"');
      return (
        `<polygon points="${tape(middle, placed.y, strip.width, strip.height)}" fill="#fff" stroke="#000"/>` +
        centred(middle, placed.y, placed.title, 9.5, ' font-weight="bold"') +
        (placed.note === '' ? '' : text(middle, placed.y + 28, placed.note, 9, ' text-anchor="middle"'))
      );
    }),
  ];
  const [width, height] = [layout.width + rows, layout.height];
  return `<svg xmlns="http://www.w3.org/2000/svg" width="${width}" height="${height}" viewBox="${-rows} 0 ${width} ${height}">${parts.join('')}</svg>`;
}
