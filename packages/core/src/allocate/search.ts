import { bitsIn, mustBe } from './judge-plan.ts';
import type { Plan, SwitchedBy } from './plan.ts';
import { type CompiledProblem, anyLoop, free, mayStandAt, out } from './problem.ts';

/** How much each thing weighs beside lost sounds, which come before all of it. */
export interface Weights {
  readonly leftOut: number;
  readonly heardThoughOff: number;
  readonly footAction: number;
  readonly byFoot: number;
  readonly shared: number;
  readonly byMessage: number;
  /** A piece that is placed, a loop and the insert that are used: the cables they take. */
  readonly placed: number;
  readonly loop: number;
  readonly insert: number;
}

export interface Target {
  readonly lost: number;
  readonly rest: number;
}

/** A plan that the search came to, better than all before it. */
export interface Found extends Target {
  readonly plan: Plan;
}

const modes = ['loop', 'message', 'foot', 'always'] as const;
const byLoop = 0;
const byMessage = 1;
const byFoot = 2;
const always = 3;

/** What stands along the line while a plan is being made: a place outside the loops, or a loop with something in it. */
interface Spot {
  readonly kind: 'front' | 'loop' | 'insert' | 'after';
  readonly pieces: number[];
  readonly by: number[];
  /** Sounds in which it is passed. */
  readonly isIn: Int32Array;
  /** Which stretch of loops between fixed places it belongs to; -1 for a fixed place. */
  readonly stretch: number;
  /** The zone of a fixed place. */
  readonly zone: number;
}

/**
 * Depth-first search for a plan that loses at most some sounds and is better than the best known, piece by piece, the
 * one with the least choice first. Loops have no numbers while it runs, only an order, so that no plan is met twice
 * under other numbers. Each piece that is left has at each place a price that it cannot go below; their sum, with as
 * many of them sharing as there are loops too few, is the bound. Runs in slices: `run` returns after some nodes.
 */
export class AllocationSearch {
  /** Nodes visited. */
  nodes = 0;
  best: Found | null = null;
  private readonly words: number;
  private readonly spots: Spot[] = [];
  /** Loops that are free in each stretch. */
  private readonly room: number[] = [];
  private readonly firstZone: number[] = [];
  private readonly spotOf: (Spot | null)[];
  private readonly isLeft: boolean[];
  private readonly ordered: Int32Array;
  private readonly lost: Int32Array;
  private readonly base: Int32Array;
  private readonly stack: Frame[] = [];
  private limit: Target;
  /** Every plan loses at least so many sounds. */
  private atLeast: number;

  /** `limit`: only what is better than this is looked for; `cap`: sounds that may be lost at most. */
  constructor(
    private readonly compiled: CompiledProblem,
    private readonly weights: Weights,
    private readonly cap: number,
    limit: Target,
    atLeast = 0,
  ) {
    const { pieces, words, on, any, fixedZone } = compiled;
    this.words = words;
    this.limit = limit;
    this.atLeast = atLeast;
    this.spotOf = Array.from({ length: pieces }, () => null);
    this.isLeft = Array.from({ length: pieces }, (_, p) => fixedZone[p] < 0);
    this.ordered = new Int32Array(pieces * words);
    this.lost = new Int32Array(words);
    this.base = Int32Array.from(on, (mask, i) => mask | any[i]);
    this.layOut();
    for (let p = 0; p < pieces; p += 1) if (fixedZone[p] >= 0) this.put(p, this.spotAt(fixedZone[p]), always);
  }

  /** Fixed places along the line, and the stretches of loops between them. */
  private layOut(): void {
    const { lastZone, insertZone, pinnedZone, takenZones } = this.compiled;
    const anchors = [...new Set([0, lastZone, insertZone, ...pinnedZone, ...takenZones])].filter((zone) => zone >= 0);
    anchors.sort((a, b) => a - b);
    anchors.forEach((zone, i) => {
      const kind = zone === 0 ? 'front' : zone === lastZone ? 'after' : zone === insertZone ? 'insert' : 'loop';
      this.spots.push(this.spot(kind, -1, zone));
      if (i + 1 === anchors.length) return;
      this.firstZone.push(zone + 1);
      this.room.push(anchors[i + 1] - zone - 1);
    });
  }

  private spot(kind: Spot['kind'], stretch: number, zone: number): Spot {
    return { kind, pieces: [], by: [], isIn: new Int32Array(this.words), stretch, zone };
  }

  private spotAt(zone: number): Spot {
    return this.spots.find((spot) => spot.zone === zone)!;
  }

  /** Goes on for some nodes; true where nothing is left to search. */
  run(nodes: number): boolean {
    const until = this.nodes + nodes;
    if (this.nodes === 0) this.open();
    while (this.stack.length > 0 && this.nodes < until) this.advance();
    return this.stack.length === 0;
  }

  /** One choice more: the next of the deepest frame that is not exhausted. */
  private advance(): void {
    const frame = this.stack[this.stack.length - 1];
    if (frame.taken) {
      this.take(frame.piece, frame.taken);
      frame.taken = null;
    }
    const option = frame.options[frame.next];
    frame.next += 1;
    if (!option) {
      this.stack.pop();
      return;
    }
    if (option.bound >= this.roomFor(option.lost)) return;
    frame.taken = this.give(frame.piece, option);
    this.open();
  }

  /** What the rest must stay below, where so many sounds are lost. */
  private roomFor(lost: number): number {
    const at = Math.max(lost, this.atLeast);
    return at < this.limit.lost ? Infinity : at > this.limit.lost ? -Infinity : this.limit.rest;
  }

  /** Looks at where the pieces placed so far lead, and opens the choice of another where that may be better. */
  private open(): void {
    this.nodes += 1;
    const rest = this.reckon();
    const lost = this.lostCount();
    if (lost > this.cap) return;
    const { pieces } = this.compiled;
    const isFinal = Math.max(lost, this.atLeast) === this.limit.lost && lost >= this.atLeast;
    let bound = rest - (isFinal ? 0 : this.footCost);
    let fewest: Choice | null = null;
    let newLoops = 0;
    const spared: number[] = [];
    let most = lost;
    const choices: Choice[] = [];
    for (let p = 0; p < pieces; p += 1) {
      if (!this.isLeft[p]) continue;
      const choice = this.choiceOf(p, lost);
      if (choice.options.length === 0) return;
      choices.push(choice);
      bound += choice.least;
      most = Math.max(most, choice.leastLost);
      if (choice.sparesLoop !== null) {
        newLoops += 1;
        spared.push(choice.sparesLoop);
      }
    }
    if (choices.length === 0) {
      if (rest < this.roomFor(lost)) this.keep(lost, rest);
      return;
    }
    const tooMany = newLoops - this.room.reduce((sum, room) => sum + room, 0);
    spared.sort((a, b) => a - b);
    /** What so many pieces pay at least that find no loop of their own. */
    const paid = (count: number): number => spared.slice(0, Math.max(0, count)).reduce((sum, each) => sum + each, 0);
    if (bound + paid(tooMany) >= this.roomFor(most)) return;
    const [withIt, oneLess, oneMore] = [paid(tooMany), paid(tooMany - 1), paid(tooMany + 1)];
    for (const choice of choices) {
      const isCounted = choice.sparesLoop !== null;
      let open = 0;
      for (const option of choice.options) {
        const others = isCounted ? (option.isNew ? withIt : oneLess) : option.isNew ? oneMore : withIt;
        option.bound = bound - choice.least + option.rest + others;
        if (option.bound < this.roomFor(option.lost)) open += 1;
      }
      if (open === 0) return;
      choice.open = open;
      if (!fewest || open < fewest.open || (open === fewest.open && choice.weight > fewest.weight)) fewest = choice;
    }
    const { piece, options } = fewest!;
    options.sort((a, b) => a.lost - b.lost || a.price - b.price || a.rest - b.rest);
    this.stack.push({ piece, options, next: 0, taken: null });
  }

  private keep(lost: number, rest: number): void {
    this.limit = { lost, rest };
    this.best = { lost, rest, plan: this.planNow() };
  }

  private planNow(): Plan {
    const { pieces, fixedZone } = this.compiled;
    const zones = new Array<number>(pieces).fill(out);
    const by = new Array<SwitchedBy>(pieces).fill('always');
    const next = [...this.firstZone];
    for (const spot of this.spots) {
      if (spot.stretch < 0 && spot.pieces.length === 0) continue;
      const zone = spot.stretch < 0 ? spot.zone : next[spot.stretch]++;
      spot.pieces.forEach((p, i) => {
        zones[p] = zone;
        by[p] = fixedZone[p] >= 0 ? 'fixed' : modes[spot.by[i]];
      });
    }
    return { zones, by };
  }

  // ---- what is placed ----

  private put(piece: number, spot: Spot, by: number): void {
    const { on } = this.compiled;
    spot.pieces.push(piece);
    spot.by.push(by);
    this.spotOf[piece] = spot;
    if (spot.kind === 'loop') for (let w = 0; w < this.words; w += 1) spot.isIn[w] |= on[piece * this.words + w];
  }

  private give(piece: number, option: Option): Given {
    this.isLeft[piece] = false;
    if (option.by < 0) return { spot: null, made: false };
    let spot: Spot;
    if (option.isNew) {
      spot = this.spot('loop', option.stretch, -1);
      this.spots.splice(option.at, 0, spot);
      this.room[option.stretch] -= 1;
    } else spot = this.spots[option.at];
    this.put(piece, spot, option.by);
    return { spot, made: option.isNew };
  }

  private take(piece: number, { spot, made }: Given): void {
    this.isLeft[piece] = true;
    this.spotOf[piece] = null;
    if (!spot) return;
    spot.pieces.pop();
    spot.by.pop();
    if (made) {
      this.spots.splice(this.spots.indexOf(spot), 1);
      this.room[spot.stretch] += 1;
      return;
    }
    if (spot.kind !== 'loop') return;
    spot.isIn.fill(0);
    const { on } = this.compiled;
    for (const p of spot.pieces) for (let w = 0; w < this.words; w += 1) spot.isIn[w] |= on[p * this.words + w];
  }

  /** What foot actions weigh of what `reckon` returned last. */
  private footCost = 0;

  /** What the pieces decided so far lose and weigh, by the definition; those left are as if they were not there. */
  private reckon(): number {
    const { pieces, on, off, barred, all } = this.compiled;
    const { words, weights, lost, ordered, base } = this;
    lost.fill(0);
    let rest = 0;
    this.footCost = 0;
    for (let p = 0; p < pieces; p += 1)
      if (!this.isLeft[p] && !this.spotOf[p]) {
        rest += weights.leftOut;
        for (let w = 0; w < words; w += 1) lost[w] |= on[p * words + w];
      }
    for (const spot of this.spots) {
      const { kind, isIn, by } = spot;
      if (spot.pieces.length === 0) continue;
      rest += weights.placed * spot.pieces.length;
      if (kind === 'loop') rest += weights.loop + weights.shared * (spot.pieces.length - 1);
      else if (kind === 'insert') rest += weights.insert;
      for (let i = 0; i < spot.pieces.length; i += 1) {
        const p = spot.pieces[i];
        const isFixed = this.compiled.fixedZone[p] >= 0;
        let heard = 0;
        for (let w = 0; w < words; w += 1) {
          const at = p * words + w;
          const passed = by[i] === always ? all[w] : by[i] === byLoop ? isIn[w] : 0;
          ordered[at] = base[at] | (passed & off[at]);
          if (isFixed) continue;
          heard |= passed & off[at];
          lost[w] |= passed & barred[at];
        }
        if (heard !== 0) rest += weights.heardThoughOff;
        if (by[i] === byMessage) rest += weights.byMessage;
        else if (by[i] === byFoot) rest += weights.byFoot;
      }
    }
    for (let i = 0; i < this.spots.length; i += 1)
      for (const a of this.spots[i].pieces)
        for (let j = i + 1; j < this.spots.length; j += 1)
          for (const b of this.spots[j].pieces)
            if (b < a) for (let w = 0; w < words; w += 1) lost[w] |= ordered[a * words + w] & ordered[b * words + w];
    for (const spot of this.spots)
      for (let i = 0; i < spot.pieces.length; i += 1)
        if (spot.by[i] === byFoot)
          this.footCost += weights.footAction * this.actionsOf(spot.pieces[i], spot.kind === 'loop' ? spot.isIn : null);
    return rest + this.footCost;
  }

  private lostCount(): number {
    let count = 0;
    for (let w = 0; w < this.words; w += 1) count += bitsIn(this.lost[w]);
    return count;
  }

  /** How often a foot moves a piece through the sounds that are not lost so far. */
  private actionsOf(piece: number, isIn: Int32Array | null, opened: Int32Array | null = null): number {
    const { set, on, off, isOnAtPowerUp } = this.compiled;
    const { words, lost } = this;
    let isOn = isOnAtPowerUp[piece];
    let count = 0;
    for (let at = 0; at < set.length; at += 1) {
      const [word, bit] = [set[at] >> 5, 1 << (set[at] & 31)];
      if ((lost[word] & bit) !== 0) continue;
      const i = piece * words + word;
      const passed = isIn === null ? 1 : (isIn[word] | (opened ? opened[i] : 0)) & bit;
      const wanted = mustBe(on[i] & bit, off[i] & bit, passed);
      if (wanted === null || wanted === isOn) continue;
      isOn = wanted;
      count += 1;
    }
    return count;
  }

  // ---- what a piece that is left can come to ----

  private choiceOf(piece: number, lostNow: number): Choice {
    const { compiled, words, weights, spots, base } = this;
    const { on, off, barred, means, pinnedZone, isFrozen } = compiled;
    const may = means[piece];
    const pin = pinnedZone[piece];
    const at = piece * words;
    const count = spots.length;
    // Sounds in which some piece stands on the wrong side, by place: pieces wanted before it that stand behind, and
    // pieces wanted behind it that stand before.
    const before = new Int32Array((count + 1) * words);
    const behind = new Int32Array((count + 1) * words);
    let [firstLater, lastEarlier] = [count, -1];
    for (let s = 0; s < count; s += 1) {
      for (let w = 0; w < words; w += 1) before[(s + 1) * words + w] = before[s * words + w];
      for (const other of spots[s].pieces)
        if (other > piece) {
          firstLater = Math.min(firstLater, s);
          for (let w = 0; w < words; w += 1) before[(s + 1) * words + w] |= this.ordered[other * words + w];
        } else lastEarlier = s;
    }
    for (let s = count - 1; s >= 0; s -= 1) {
      for (let w = 0; w < words; w += 1) behind[s * words + w] = behind[(s + 1) * words + w];
      for (const other of spots[s].pieces)
        if (other < piece) for (let w = 0; w < words; w += 1) behind[s * words + w] |= this.ordered[other * words + w];
    }
    let hasOff = 0;
    for (let w = 0; w < words; w += 1) hasOff |= off[at + w];

    const options: Option[] = [];
    const add = (
      spot: number,
      isNew: boolean,
      stretch: number,
      by: number,
      lost: number,
      rest: number,
      price: number,
    ) => {
      if (lost > this.cap || rest >= this.roomFor(lost)) return;
      options.push({ at: spot, isNew, stretch, by, lost, rest, price, bound: 0 });
    };
    const footPrice = (isIn: Int32Array | null, opened: Int32Array | null) =>
      weights.byFoot + weights.footAction * this.actionsOf(piece, isIn, opened);
    const isFinal = lostNow >= this.atLeast && lostNow === this.limit.lost;
    /** Foot actions count towards the bound only where no sound can be lost any more. */
    const foot = (price: number): number => (isFinal ? price : weights.byFoot);
    let inLine: number | null = null;

    for (let s = 0; s < count; s += 1) {
      const spot = spots[s];
      if (spot.zone >= 0 ? !mayStandAt(compiled, pin, spot.zone) : pin !== free && pin !== anyLoop) continue;
      if (isFrozen && (firstLater < s || lastEarlier > s)) continue;
      const isLoop = spot.kind === 'loop';
      if (isLoop && !may.has('loop')) continue;
      const isFirst = spot.pieces.length === 0;
      const place = isLoop
        ? weights.placed + (isFirst ? weights.loop : weights.shared)
        : weights.placed + (spot.kind === 'insert' && isFirst ? weights.insert : 0);
      // Message and foot: heard only where it is wanted.
      let quiet = 0;
      let alone = 0;
      let heardOff = 0;
      let mates = 0;
      for (let w = 0; w < words; w += 1) {
        const wrong = before[s * words + w] | behind[(s + 1) * words + w];
        let opened = 0;
        if (isLoop)
          for (let i = 0; i < spot.pieces.length; i += 1)
            if (spot.by[i] === byLoop) {
              const mate = spot.pieces[i] * words + w;
              opened |= on[at + w] & barred[mate];
              if ((on[at + w] & off[mate] & ~spot.isIn[w]) !== 0) mates += 1;
            }
        const now = this.lost[w];
        quiet += bitsIn(now | opened | (wrong & base[at + w]));
        const passed = isLoop ? spot.isIn[w] | on[at + w] : compiled.all[w];
        const heard = passed & off[at + w];
        heardOff |= heard;
        alone += bitsIn(now | opened | (wrong & (base[at + w] | heard)) | (passed & barred[at + w]));
      }
      const matesPrice = mates > 0 ? weights.heardThoughOff : 0;
      if (isLoop) {
        const own = place + (heardOff !== 0 ? weights.heardThoughOff : 0);
        add(s, false, -1, byLoop, alone, own, own + matesPrice);
      } else if (may.has('always')) {
        const own = place + (hasOff !== 0 ? weights.heardThoughOff : 0);
        add(s, false, -1, always, alone, own, own);
      }
      if (may.has('message'))
        add(s, false, -1, byMessage, quiet, place + weights.byMessage, place + weights.byMessage + matesPrice);
      if (may.has('foot')) {
        const price = isLoop ? footPrice(spot.isIn, on) : (inLine ??= footPrice(null, null));
        add(s, false, -1, byFoot, quiet, place + foot(price), place + price + matesPrice);
      }
    }

    if (may.has('loop') && (pin === free || pin === anyLoop)) {
      let stretch = -1;
      for (let gap = 1; gap < count; gap += 1) {
        const left = spots[gap - 1];
        stretch = left.stretch >= 0 ? left.stretch : stretch + 1;
        if (this.room[stretch] === 0) continue;
        if (isFrozen && (firstLater < gap || lastEarlier >= gap)) continue;
        let lost = 0;
        for (let w = 0; w < words; w += 1)
          lost += bitsIn(this.lost[w] | ((before[gap * words + w] | behind[gap * words + w]) & base[at + w]));
        const place = weights.placed + weights.loop;
        add(gap, true, stretch, byLoop, lost, place, place);
        if (may.has('message'))
          add(gap, true, stretch, byMessage, lost, place + weights.byMessage, place + weights.byMessage);
        if (may.has('foot')) {
          const price = footPrice(emptyMask(words), on);
          add(gap, true, stretch, byFoot, lost, place + foot(price), place + price);
        }
      }
    }
    if (mayStandAt(compiled, pin, out)) {
      let lost = 0;
      for (let w = 0; w < words; w += 1) lost += bitsIn(this.lost[w] | on[at + w]);
      add(-1, false, -1, -1, lost, weights.leftOut, weights.leftOut);
    }
    return this.choice(piece, options);
  }

  private choice(piece: number, options: Option[]): Choice {
    let [least, leastLost, inNew, elsewhere] = [Infinity, Infinity, Infinity, Infinity];
    for (const { rest, lost, isNew } of options) {
      least = Math.min(least, rest);
      leastLost = Math.min(leastLost, lost);
      if (isNew) inNew = Math.min(inNew, rest);
      else elsewhere = Math.min(elsewhere, rest);
    }
    // It shares with a piece that is left, too, where no loop is free for both.
    const shares = inNew + this.weights.shared - this.weights.loop;
    const sparesLoop = inNew <= least && inNew < elsewhere ? Math.min(elsewhere, shares) - inNew : null;
    let weight = 0;
    const { on } = this.compiled;
    for (let w = 0; w < this.words; w += 1) weight += bitsIn(on[piece * this.words + w]);
    return { piece, options, least, leastLost, sparesLoop, weight, open: 0 };
  }
}

const emptyMasks = new Map<number, Int32Array>();
function emptyMask(words: number): Int32Array {
  let mask = emptyMasks.get(words);
  if (!mask) emptyMasks.set(words, (mask = new Int32Array(words)));
  return mask;
}

interface Option {
  /** Index of the spot, or of the gap before which a new loop stands. */
  readonly at: number;
  readonly isNew: boolean;
  readonly stretch: number;
  /** How it is switched; -1: left out. */
  readonly by: number;
  /** Sounds lost with it, at least. */
  readonly lost: number;
  /** What it adds at least. */
  readonly rest: number;
  /** What it adds as things stand, by which options are tried in order. */
  readonly price: number;
  /** What a plan with it weighs at least. */
  bound: number;
}

interface Choice {
  readonly piece: number;
  readonly options: Option[];
  readonly least: number;
  readonly leastLost: number;
  /** What it costs at least to take no new loop, where a new loop is best; null where another place is as good. */
  readonly sparesLoop: number | null;
  readonly weight: number;
  open: number;
}

interface Given {
  readonly spot: Spot | null;
  readonly made: boolean;
}

interface Frame {
  readonly piece: number;
  readonly options: readonly Option[];
  next: number;
  taken: Given | null;
}
