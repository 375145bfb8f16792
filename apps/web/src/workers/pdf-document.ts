import type { Sheet, SheetGroup } from '@yunta/core';
import type { PageFoot, PaperSize, Printed } from './pdf-types.ts';

/** Width and height of the paper in points (ISO 216, ANSI A), and its margins. */
const sizes: Readonly<Record<PaperSize, readonly [number, number]>> = { A4: [595.28, 841.89], LETTER: [612, 792] };
const margin = 36;
/** A table of so many columns is printed across. */
const mostUpright = 10;
/** A group of so many lines may be broken over two pages: it would not fit one. */
const mostTogether = 34;

type Node = Readonly<Record<string, unknown>>;

/** What pdfmake lays out: each sheet on a page of its own, rig, revision and date at the foot of every page. */
export function pdfDocument(printed: readonly Printed[], paper: PaperSize, foot: PageFoot): Node {
  return {
    pageSize: paper,
    pageMargins: [margin, 36, margin, 44],
    info: { title: `${foot.rig}, revision ${foot.revision}` },
    defaultStyle: { fontSize: 9, lineHeight: 1.1 },
    footer: (page: number, pages: number) => ({
      columns: [
        { text: `${foot.rig}, revision ${foot.revision}, ${foot.date}` },
        { text: `${page} / ${pages}`, alignment: 'right' },
      ],
      margin: [margin, 14, margin, 0],
      fontSize: 8,
    }),
    content: printed.flatMap((each, i) => {
      const across = isAcross(each);
      const first: Node = {
        ...(i > 0 || across ? { pageBreak: i > 0 ? 'before' : undefined } : {}),
        pageOrientation: across ? 'landscape' : 'portrait',
      };
      return each.kind === 'drawing' ? drawing(each, paper, first) : sheet(each.sheet, paper, first);
    }),
  };
}

const isAcross = (printed: Printed): boolean =>
  printed.kind === 'drawing' || (printed.sheet.look === 'matrix' && printed.sheet.columns.length > mostUpright);

const heading = (title: string, about: string, first: Node): Node => ({
  text: [
    { text: title, fontSize: 15, bold: true },
    { text: `   ${about}`, color: '#555' },
  ],
  margin: [0, 0, 0, 6],
  ...first,
});

function drawing(
  { title, about, svg }: Extract<Printed, { readonly kind: 'drawing' }>,
  paper: PaperSize,
  first: Node,
): readonly Node[] {
  const [short, long] = sizes[paper];
  return [heading(title, about, first), { svg, fit: [long - 2 * margin, short - 150] }];
}

function sheet(made: Sheet, paper: PaperSize, first: Node): readonly Node[] {
  const looks = { list: listGroup, cues: cueGroup, matrix: matrixGroup, floor: floorGroup } as const;
  return [
    heading(made.title, made.about, first),
    ...made.groups.map((group) => looks[made.look](made, group, paper)),
    ...made.notes.map((note): Node => ({ text: note, italics: true, fontSize: 8, margin: [0, 4, 0, 0] })),
  ];
}

const tickBox: Node = { canvas: [{ type: 'rect', x: 0, y: 1, w: 8, h: 8, lineWidth: 0.7 }] };

/** A group stays on one page, heading and all, as long as a page holds it. */
const together = (group: SheetGroup, stack: readonly Node[]): Node => ({
  stack,
  unbreakable: group.lines.length <= mostTogether,
});

function listGroup(made: Sheet, group: SheetGroup): Node {
  const last = made.columns.length - 1;
  return together(group, [
    { text: group.heading, bold: true, margin: [0, 6, 0, 2], fontSize: 10 },
    {
      layout: 'lightHorizontalLines',
      fontSize: 8,
      table: {
        headerRows: 1,
        dontBreakRows: true,
        widths: [...made.columns.map((_, n) => (n === 1 || n === last ? '*' : 'auto')), 12],
        body: [
          [...made.columns.map((column) => ({ text: column, bold: true, color: '#555' })), { text: '' }],
          ...group.lines.map((line) => [...line.cells.map((cell) => ({ text: cell })), tickBox]),
        ],
      },
    },
  ]);
}

/** Large: read standing, the paper on the floor. */
function cueGroup(_: Sheet, group: SheetGroup): Node {
  // The sound's name is what is pressed: bars stand beside the part.
  const [part, bars, press, sound, feet, hands] = [0, 1, 2, 3, 4, 5];
  const text = (cell: string, more: Node = {}): Node => ({ text: cell, ...more });
  return together(group, [
    { text: group.heading, bold: true, fontSize: 17, margin: [0, 10, 0, 2] },
    {
      layout: 'lightHorizontalLines',
      fontSize: 15,
      table: {
        dontBreakRows: true,
        widths: ['*', 58, '*', '*'],
        body: group.lines.map(({ cells }) => [
          {
            stack: [
              text(cells[part], { bold: true }),
              ...(cells[bars] === '' ? [] : [text(`${cells[bars]} bars`, { fontSize: 10, color: '#555' })]),
            ],
          },
          text(cells[press], { fontSize: 21, bold: true }),
          text(cells[sound]),
          text([cells[feet], cells[hands]].filter(Boolean).join('; '), { italics: true }),
        ]),
      },
    },
  ]);
}

function matrixGroup(made: Sheet, group: SheetGroup, paper: PaperSize): Node {
  const cells = made.columns.length - 2;
  const room = sizes[paper][made.columns.length > mostUpright ? 1 : 0] - 2 * margin - 190;
  const width = Math.max(20, Math.min(58, room / Math.max(1, cells) - 5));
  return {
    fontSize: 8,
    layout: {
      hLineWidth: (i: number) => (i === 1 ? 1 : 0.4),
      vLineWidth: () => 0.2,
      hLineColor: () => '#999',
      vLineColor: () => '#ccc',
      paddingLeft: () => 2,
      paddingRight: () => 2,
      paddingTop: () => 1.2,
      paddingBottom: () => 0.8,
    },
    table: {
      headerRows: 1,
      dontBreakRows: true,
      widths: [24, 120, ...Array.from({ length: cells }, () => width), 12],
      body: [
        [
          ...made.columns.map((column, n) => ({
            text: column,
            bold: true,
            fontSize: 7,
            alignment: n < 2 ? 'left' : 'center',
          })),
          { text: '' },
        ],
        ...group.lines.map((line) => [
          ...line.cells.map((cell, n) => (n < 2 ? { text: cell, bold: n === 0 } : matrixCell(cell, width))),
          tickBox,
        ]),
      ],
    },
  };
}

/** A filled square is on, a hollow one off, as on the screen; the rest is written. */
const matrixCell = (cell: string, width: number): Node =>
  cell === '●' || cell === '○'
    ? {
        canvas: [
          {
            type: 'rect',
            x: width / 2 - 3.5,
            y: 1,
            w: 7,
            h: 7,
            lineWidth: 0.8,
            ...(cell === '●' ? { color: '#000' } : {}),
          },
        ],
      }
    : { text: cell, alignment: 'center' };

function floorGroup(made: Sheet, group: SheetGroup): Node {
  return {
    fontSize: 11,
    table: {
      dontBreakRows: true,
      widths: [26, ...made.columns.slice(1).map(() => '*')],
      heights: 34,
      body: group.lines.map(({ cells }) =>
        cells.map((cell, n) => ({ text: cell, bold: n === 0, ...(n === 0 ? { fontSize: 14 } : {}) })),
      ),
    },
  };
}
