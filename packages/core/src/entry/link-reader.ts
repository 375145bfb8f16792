import { type Jack, socketOf } from '../model/anatomy.ts';
import { type Carries, jackFacts, mateOf } from '../model/jack-kinds.ts';
import type { Cable, Plug } from '../model/rig.ts';
import type { Draft, DraftDevice } from './draft.ts';
import type { End } from './end-reader.ts';
import { type Direction, fits, insertJacks, jacksNamed, mainJacks, onlyInsertLeft } from './jack-words.ts';
import { misread } from './misread.ts';
import type { AddedCable, CableEndRead, Choices } from './rig-text.ts';

/** Finds the jacks of each link of one statement, and plugs them in. */
export class LinkReader {
  readonly cables: AddedCable[] = [];
  /** Cables that were there already. */
  known = 0;

  constructor(
    private readonly draft: Draft,
    private readonly keyOf: (at: string, what: string) => string,
    private readonly choices: Choices,
    private carries: Carries,
  ) {
    this.cable = draft.freshCable();
  }

  /** A cable between two ends, or one a side where it is stereo. */
  link(from: readonly End[], to: readonly End[], length: number | null, at: string, isStereo: boolean): void {
    if (isStereo) return this.stereoLink(from, to, length, at);
    // A send may be jumped to a return of the same device, where somebody names them.
    const isBare = ({ words }: End) => words.in === '' && words.out === '';
    for (const a of from.filter(isBare))
      if (to.some((b) => isBare(b) && a.device === b.device)) misread({ code: 'itself', device: a.device.name });
    const first = this.pair(from[0], to[0], at);
    const plugs: CableEndRead[] = [first.from];
    const take = (end: End, direction: Direction, key: string) => {
      const jacks = this.jacksOf(end, direction).filter(
        (jack) =>
          this.isFree(end.device, jack) &&
          !plugs.some((plug) => plug.device === end.device.id && plug.jack === jack.id) &&
          isSpeaker(jack) === first.isSpeaker,
      );
      const jack = this.chosenJack(end, key) ?? jacks.at(0) ?? this.refuse(end, direction);
      plugs.push(this.endAt(end, direction, jack, key));
    };
    for (const [i, end] of from.slice(1).entries()) take(end, 'out', `${at}.${i + 1}.out`);
    plugs.push(first.to);
    for (const [i, end] of to.slice(1).entries()) take(end, 'in', `${at}.${i + 1}.in`);
    this.take(plugs, length);
  }

  /** Left to left and right to right: two cables, or one where a jack holds both sides. */
  private stereoLink(from: readonly End[], to: readonly End[], length: number | null, at: string): void {
    if (from.length > 1) misread({ code: 'no-fit', from: from.map((end) => end.typed).join(' + '), to: to[0].typed });
    const left = this.pair(from[0], to[0], at);
    const out = this.sidesOf(left.from, from[0], 'out');
    const into =
      to.length === 2 ? [left.to, this.pair(from[0], to[1], `${at}.right`).to] : this.sidesOf(left.to, to[0], 'in');
    if (out.length === 1 && into.length === 1) return this.take([out[0], into[0]], length);
    if (out.length === 2 && into.length === 2)
      return [0, 1].forEach((side) => this.take([out[side], into[side]], length));
    const plugs = [...out, ...into];
    const single = out.length === 1 ? 0 : 2;
    const others = [0, 1, 2].filter((plug) => plug !== single);
    this.take(
      plugs,
      length,
      others.map((plug, side) => [
        { plug: single, pole: side === 0 ? 'tip' : 'ring' },
        { plug, pole: 'tip' },
      ]),
    );
  }

  /** The one jack that holds both sides, or the left with its right. */
  private sidesOf(left: CableEndRead, end: End, direction: Direction): readonly CableEndRead[] {
    const { jacks } = end.device.anatomy;
    const said = { ...left, assumed: false };
    if (jacks.some((jack) => jack.id === left.jack && jack.stereo === true)) return [said];
    const twin = jacks.find((jack) => jack.twin === left.jack);
    return twin
      ? [said, { ...this.endAt(end, direction, twin, `${left.key}.right`), assumed: false }]
      : misread({ code: 'not-stereo', device: end.device.name, direction });
  }

  /** Plugs in a cable, if it is not there already. */
  private take(plugs: readonly CableEndRead[], length: number | null, poles?: Cable['poles']): void {
    if (this.isThere(plugs)) {
      this.known += 1;
      return;
    }
    const taken = plugs.find((plug) => !this.isFreePlug(plug));
    if (taken) this.refuseTaken(taken);
    const cord = this.cables.find((cable) =>
      cable.plugs.some((plug) => plugs.some((other) => this.isOneSocket(plug, other))),
    );
    for (const plug of plugs) this.draft.plug(this.deviceAt(plug), plug.jack, this.cable);
    const cable = { plugs, length, ...(poles ? { poles } : {}) };
    if (cord) this.cables.splice(this.cables.indexOf(cord), 1, oneCord(cord, cable));
    else this.cables.push(cable);
  }

  /** What a statement plugs counts as one cable as far as sockets go: an insert cord is told as two links. */
  private readonly cable: string;

  private isFree = (device: DraftDevice, jack: Jack): boolean => this.draft.isFree(device, jack, this.cable);

  private isOneSocket(plug: Plug, other: Plug): boolean {
    if (plug.device !== other.device) return false;
    const { jacks } = this.deviceAt(plug).anatomy;
    return socketOf(
      jacks,
      jacks.find(({ id }) => id === plug.jack)!,
    ).some(({ id }) => id === other.jack && id !== plug.jack);
  }

  private deviceAt = (plug: Plug): DraftDevice => this.draft.devices.find(({ id }) => id === plug.device)!;
  private isFreePlug(plug: Plug): boolean {
    const device = this.deviceAt(plug);
    return this.isFree(
      device,
      device.anatomy.jacks.find((jack) => jack.id === plug.jack)!,
    );
  }

  /** Whether one cable of the rig has these ends already. */
  private isThere(plugs: readonly Plug[]): boolean {
    const cables = plugs.map((plug) => {
      const device = this.deviceAt(plug);
      return this.draft.cableAt(
        device,
        device.anatomy.jacks.find((jack) => jack.id === plug.jack)!,
      );
    });
    return cables[0] !== undefined && cables.every((cable) => cable === cables[0]);
  }

  private refuseTaken(plug: Plug): never {
    const device = this.deviceAt(plug);
    const jack = device.anatomy.jacks.find((each) => each.id === plug.jack)!;
    const direction: Direction = jackFacts(jack.kind).direction;
    return misread({ code: 'taken', device: device.name, jacks: [jack.label], direction });
  }

  /** An output and an input that fit each other. */
  private pair(from: End, to: End, at: string): { from: CableEndRead; to: CableEndRead; isSpeaker: boolean } {
    const outs = this.jacksOf(from, 'out');
    if (outs.length === 0) this.refuse(from, 'out');
    this.carries = jackFacts(outs[0].kind).carries;
    const ins = this.jacksOf(to, 'in');
    if (ins.length === 0) this.refuse(to, 'in');
    const [outKey, inKey] = [`${at}.out`, `${at}.in`];
    const chosenOut = this.chosenJack(from, outKey);
    const chosenIn = this.chosenJack(to, inKey);
    const isAlike = (out: Jack, into: Jack) => (out.balanced ?? false) === (into.balanced ?? false);
    const hasAlike = outs.some((out) => ins.some((into) => isAlike(out, into) && mateOf(out.kind) === into.kind));
    for (const isFreeAlone of [true, false])
      for (const out of chosenOut ? [chosenOut] : this.withInsert(from, 'out', outs, isFreeAlone))
        for (const into of chosenIn ? [chosenIn] : this.withInsert(to, 'in', ins, isFreeAlone)) {
          if (mateOf(out.kind) !== into.kind || isSpeaker(out) !== isSpeaker(into)) continue;
          if (hasAlike && !isAlike(out, into) && this.isAssumed(from, 'out') && this.isAssumed(to, 'in')) continue;
          if (isFreeAlone && !(this.isFree(from.device, out) && this.isFree(to.device, into))) continue;
          if (!isFreeAlone && !this.isThere([plugAt(from, out), plugAt(to, into)])) continue;
          return {
            from: this.endAt(from, 'out', out, outKey),
            to: this.endAt(to, 'in', into, inKey),
            isSpeaker: isSpeaker(out),
          };
        }
    for (const [end, direction, jacks] of [
      [from, 'out', outs],
      [to, 'in', ins],
    ] as const)
      if (jacks.every((jack) => !this.isFree(end.device, jack)))
        misread({ code: 'taken', device: end.device.name, jacks: jacks.map(({ label }) => label), direction });
    return misread({ code: 'no-fit', from: from.typed, to: to.typed });
  }

  /** Jacks that an end may mean, best first: those that its words name, else the main ones. */
  private jacksOf({ device, words }: End, direction: Direction): readonly Jack[] {
    const { jacks } = device.anatomy;
    const named = words[direction] === '' ? [] : jacksNamed(jacks, words[direction]);
    const right = named.filter((jack) => jackFacts(jack.kind).direction === direction);
    const ofKind = right.filter((jack) => jackFacts(jack.kind).carries === this.carries);
    if (ofKind.length > 0) return ofKind;
    if (right.length > 0) return right;
    if (this.carries !== 'signal') return jacks.filter((jack) => fits(jack, direction, this.carries));
    const main = mainJacks(device.anatomy, direction, 'signal');
    if (main.length > 0 || direction === 'in') return main;
    // What has no sound to give gives messages, a position or a contact.
    const others = silentKinds.map((carries) => jacks.filter((jack) => fits(jack, direction, carries)));
    return others.find((found) => found.length > 0) ?? main;
  }

  /** Behind the main jacks the one insert that is left, where the jack was not said. */
  private withInsert(end: End, direction: Direction, jacks: readonly Jack[], isFreeAlone: boolean): readonly Jack[] {
    if (this.carries !== 'signal' || !this.isAssumed(end, direction)) return jacks;
    const { anatomy } = end.device;
    if (!isFreeAlone) {
      const aside = insertJacks(anatomy);
      return [...jacks, ...anatomy.jacks.filter((jack) => fits(jack, direction, 'signal') && aside.has(jack.id))];
    }
    return [...jacks, ...onlyInsertLeft(end.device.anatomy, direction, (jack) => this.isFree(end.device, jack))];
  }

  /** Whether nobody named the jack by which the signal goes that way. */
  isAssumed({ device, words }: End, direction: Direction): boolean {
    if (words[direction] === '') return true;
    return !jacksNamed(device.anatomy.jacks, words[direction]).some(
      (jack) => jackFacts(jack.kind).direction === direction,
    );
  }

  private chosenJack(end: End, key: string): Jack | undefined {
    const chosen = this.choices[this.keyOf(key, 'jack')];
    return end.device.anatomy.jacks.find((jack) => jack.id === chosen);
  }

  private endAt(end: End, direction: Direction, jack: Jack, key: string): CableEndRead {
    return {
      ...plugAt(end, jack),
      assumed: this.isAssumed(end, direction) && this.chosenJack(end, key) === undefined && !isOnlyOne(end, jack),
      key: this.keyOf(key, 'jack'),
    };
  }

  /** Ends the reading: no such jack. */
  refuse(end: End, direction: Direction): never {
    const typed = end.words[direction];
    return misread({ code: 'no-jack', typed, device: end.device.name, direction });
  }
}

/** Both ways through one socket: one cord, whose plugs there are one. */
function oneCord(first: AddedCable, second: AddedCable): AddedCable {
  const wiresOf = ({ plugs, poles }: AddedCable, from: number) =>
    (poles ?? [plugs.map((_, plug) => ({ plug, pole: 'tip' }))]).map((wire) =>
      wire.map(({ plug, pole }) => ({ plug: plug + from, pole })),
    );
  return {
    plugs: [...first.plugs, ...second.plugs],
    poles: [...wiresOf(first, 0), ...wiresOf(second, first.plugs.length)],
    length: first.length ?? second.length,
  };
}

const silentKinds = ['midi', 'expression', 'contact', 'power', 'mains'] as const;

const plugAt = (end: End, jack: Jack): Plug => ({ device: end.device.id as Plug['device'], jack: jack.id });
const isSpeaker = (jack: Jack): boolean => jack.speaker ?? false;

/** A device with a single jack of a kind leaves nothing to assume. */
const isOnlyOne = ({ device }: End, jack: Jack): boolean =>
  device.anatomy.jacks.filter((other) => other.kind === jack.kind && isSpeaker(other) === isSpeaker(jack)).length === 1;
