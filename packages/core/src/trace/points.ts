import type { Anatomy } from '../model/anatomy.ts';
import { jackFacts } from '../model/jack-kinds.ts';

/**
 * The points of an anatomy that signal can stand at, numbered: the poles of its signal jacks, inner points that its
 * sections join, and where sound is born or leaves.
 */
export interface Points {
  readonly count: number;
  /** The ends of each section. */
  readonly from: readonly number[];
  readonly to: readonly number[];
  /** The points of a signal jack's poles, by the jack's id. */
  readonly poles: ReadonlyMap<string, readonly { readonly pole: string; readonly point: number }[]>;
  readonly source: number | undefined;
  readonly destination: number | undefined;
}

const known = new WeakMap<Anatomy, Points>();

/** Found once for all devices of a kind. */
export function pointsOf(anatomy: Anatomy): Points {
  let points = known.get(anatomy);
  if (!points) known.set(anatomy, (points = find(anatomy)));
  return points;
}

const tipAlone: readonly string[] = ['tip'];

/** A jack's tip is written without its pole. */
const plain = (point: string): string => (point.endsWith('.tip') ? point.slice(0, -4) : point);

function find(anatomy: Anatomy): Points {
  const numbers = new Map<string, number>();
  const of = (point: string): number => {
    const name = plain(point);
    let number = numbers.get(name);
    if (number === undefined) numbers.set(name, (number = numbers.size));
    return number;
  };
  const from = anatomy.sections.map((section) => of(section.from));
  const to = anatomy.sections.map((section) => of(section.to));
  const source = anatomy.source === undefined ? undefined : of(anatomy.source);
  const destination = anatomy.destination === undefined ? undefined : of(anatomy.destination);
  const poles = new Map(
    anatomy.jacks.flatMap((jack) =>
      jackFacts(jack.kind).carries === 'signal'
        ? [[jack.id, (jack.poles ?? tipAlone).map((pole) => ({ pole, point: of(`${jack.id}.${pole}`) }))] as const]
        : [],
    ),
  );
  return { count: numbers.size, from, to, poles, source, destination };
}
