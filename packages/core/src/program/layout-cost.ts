/** A place on the floor, in millimetres. */
export type FloorPoint = readonly [x: number, y: number];

/** Where the foot goes to change the bank; `unplaced` where nobody said: then its way there is not counted. */
export type BankSwitch = FloorPoint | 'unplaced';

/** A floor unit as the foot meets it. Without an *up* (or *down*) there is no way up (down). */
export interface FloorUnit {
  readonly banks: number;
  /** The place of each switch. */
  readonly at: readonly FloorPoint[];
  readonly up: BankSwitch | null;
  readonly down: BankSwitch | null;
  /** Whether the bank after the last is the first. */
  readonly wrap: boolean;
  /** The bank at power-up. */
  readonly start: number;
}

/** A part's sound, where it lies, and how much time there is to bring it up. */
export interface SoundChange {
  readonly bank: number;
  readonly position: number;
  /** It comes on the beat: in the middle of a song, or of two that follow without a pause. */
  readonly hurried: boolean;
  /** A song app sets the bank, no foot. */
  readonly sent: boolean;
}

/** What a layout costs the player in a set. Whole numbers; less is better. */
export interface LayoutCost {
  /** Presses of switches, slots and bank switches together. */
  readonly presses: number;
  /** Bank presses where there is no time for them, and where there is. */
  readonly hurriedBankMoves: number;
  readonly otherBankMoves: number;
  /** The foot's way where there is no time, mm; each leg rounded to whole millimetres. */
  readonly travelMm: number;
}

/** Half a millimetre and more counts as one. */
const leg = (from: FloorPoint, to: FloorPoint): number =>
  Math.floor(Math.hypot(to[0] - from[0], to[1] - from[1]) + 0.5);

/**
 * Walks through the changes of a set, from the bank at power-up. A slot that is current already is not pressed; bank
 * moves go the shorter way round, up where both are as long. Null where there is no way to a bank.
 */
export function layoutCost(unit: FloorUnit, changes: readonly SoundChange[]): LayoutCost | null {
  let [presses, hurriedBankMoves, otherBankMoves, travelMm] = [0, 0, 0, 0];
  let { start: bank } = unit;
  let last: SoundChange | null = null;
  for (const change of changes) {
    if (last && last.bank === change.bank && last.position === change.position) continue;
    const way = change.sent ? { moves: 0, over: null } : bankWay(unit, bank, change.bank);
    if (!way) return null;
    presses += way.moves + 1;
    if (change.hurried) hurriedBankMoves += way.moves;
    else otherBankMoves += way.moves;
    if (change.hurried && last) {
      const [from, to] = [unit.at[last.position], unit.at[change.position]];
      const over = way.over === 'unplaced' ? null : way.over;
      travelMm += over ? leg(from, over) + leg(over, to) : leg(from, to);
    }
    bank = change.bank;
    last = change;
  }
  return { presses, hurriedBankMoves, otherBankMoves, travelMm };
}

/** How a bank is reached from another: how many presses, and of what. */
function bankWay(
  { banks, up, down, wrap }: FloorUnit,
  from: number,
  to: number,
): { readonly moves: number; readonly over: BankSwitch | null } | null {
  if (from === to) return { moves: 0, over: null };
  const ways = [
    { over: up, moves: wrap ? (to - from + banks) % banks : to - from },
    { over: down, moves: wrap ? (from - to + banks) % banks : from - to },
  ].filter((way) => way.over !== null && way.moves > 0);
  return ways.sort((a, b) => a.moves - b.moves)[0] ?? null;
}

/** Where a sound with a role lies. */
export interface RolePlace {
  readonly role: string;
  readonly bank: number;
  readonly position: number;
}

/**
 * Sounds that lie on no switch of their role. Each switch belongs to one role at most, a role has at most as many
 * switches as it has sounds in its fullest bank; of all ways to give them away, that which leaves fewest.
 */
export function roleMismatches(places: readonly RolePlace[], positions: number): number {
  const roles = [...new Set(places.map((place) => place.role))].filter((role) => role !== '');
  const seats = roles.flatMap((role) => {
    const own = places.filter((place) => place.role === role);
    const inBank = new Map<number, number>();
    for (const { bank } of own) inBank.set(bank, (inBank.get(bank) ?? 0) + 1);
    const gains = Array.from({ length: positions }, (_, at) => own.filter((place) => place.position === at).length);
    return Array.from({ length: Math.min(positions, Math.max(...inBank.values())) }, () => gains);
  });
  const withRole = places.filter((place) => place.role !== '').length;
  return withRole - mostValue(seats, positions);
}

/**
 * The most that pairs of row and column are worth, each row and each column in one pair at most; no value is below 0.
 * Kuhn and Munkres, in the form with shortest augmenting paths and potentials (Jonker and Volgenant 1987).
 */
export function mostValue(values: readonly (readonly number[])[], columns: number): number {
  const size = Math.max(values.length, columns);
  const cost = (row: number, column: number): number => -(values[row]?.[column] ?? 0);
  const none = -1;
  const rowOf = new Array<number>(size).fill(none);
  const potential = { row: new Array<number>(size).fill(0), column: new Array<number>(size).fill(0) };
  for (let start = 0; start < size; start += 1) {
    const least = new Array<number>(size).fill(Infinity);
    const before = new Array<number>(size).fill(none);
    const isDone = new Array<boolean>(size).fill(false);
    let column = none;
    let row = start;
    do {
      let next = none;
      for (let each = 0; each < size; each += 1) {
        if (isDone[each]) continue;
        const reduced = cost(row, each) - potential.row[row] - potential.column[each];
        if (reduced < least[each]) {
          least[each] = reduced;
          before[each] = column;
        }
        if (next === none || least[each] < least[next]) next = each;
      }
      const step = least[next];
      potential.row[start] += step;
      for (let each = 0; each < size; each += 1)
        if (isDone[each]) {
          potential.row[rowOf[each]] += step;
          potential.column[each] -= step;
        } else least[each] -= step;
      isDone[next] = true;
      column = next;
      row = rowOf[column];
    } while (row !== none);
    for (let end = column; end !== none;) {
      const previous = before[end];
      rowOf[end] = previous === none ? start : rowOf[previous];
      end = previous;
    }
  }
  return rowOf.reduce((sum, row, column) => sum - (row === none ? 0 : cost(row, column)), 0);
}
