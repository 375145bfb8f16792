import { assertNever } from '../units/problem.ts';
import { encode, encodeStream, hex, type MidiMessage, wireMicroseconds } from '../midi/message.ts';
import { clockMilliseconds, clockShare } from '../midi/clock.ts';
import { placer, type SmfEvent } from '../midi/smf.ts';
import { delayTimes } from '../show/delay-times.ts';
import { allocateNow, fewestLoopsNow } from '../allocate/allocate.ts';
import { costVector } from '../allocate/plan.ts';
import { compileProblem } from '../allocate/problem.ts';
import { readSmf } from '../formats/smf.ts';
import { type AllocationInputs, allocationOf } from './allocation-cases.ts';
import { solveSupplyNow, supplyConflictNow } from '../supply/solve.ts';
import { supplyVector } from '../supply/judge.ts';
import { compileSupply } from '../supply/problem.ts';
import { loopOhms, ohmsPerMetre, voltsLost, wireDiameter } from '../units/wire.ts';
import { answerBins, answerPlaces, type BinInputs, type PlacesInputs } from './bin-cases.ts';
import { type SupplyInputs, supplyOf } from './supply-cases.ts';
import { answerRecallCase } from './recall-cases.ts';
import type { CaseRig } from './recall-adapter.ts';

/** A file of reference cases: topics → cases → inputs and what an outside tool computed. */
export interface ReferenceFile {
  readonly topics: Readonly<Record<string, { readonly cases: readonly ReferenceCase[] }>>;
}

export interface ReferenceCase {
  readonly id: string;
  readonly inputs: unknown;
  readonly expected: unknown;
}

type Answerer = (inputs: never) => unknown;

/** Topics that the core reaches; each answers from a case's inputs alone. */
const answerers: Readonly<Record<string, Answerer>> = {
  '07_dc_wire': (inputs: WireInputs) => answerDrop(inputs),
  '10a_midi_wire': (inputs: { readonly messages: readonly WireMessage[] }) => answerWire(inputs.messages),
  '10b_midi_clock': (inputs: { readonly tempo: Quantity }) => answerClock(inputs.tempo.value),
  '10c_delay_times': (inputs: { readonly tempo: Quantity }) =>
    Object.fromEntries(delayTimes(inputs.tempo.value).map(({ note, ms }) => [note.replaceAll('-', '_'), ms])),
  '10d_smf': (inputs: { readonly hex: string }) => answerFile(inputs.hex),
  '14_allocation': (inputs: AllocationInputs) => answerAllocation(inputs),
  '12a_bin_assignment': (inputs: BinInputs) => answerBins(inputs),
  '12b_qap': (inputs: PlacesInputs) => answerPlaces(inputs),
  '16_power': (inputs: SupplyInputs) => answerSupply(inputs),
  '13_recall': (inputs: { readonly rig: CaseRig }) => answerRecallCase(inputs.rig),
};

export interface ReferenceAnswers {
  readonly answers: Readonly<Record<string, unknown>>;
  readonly left: readonly string[];
  /** Cases that hold what the core's device types do not know, each with its reason. */
  readonly refused: readonly { readonly id: string; readonly reason: string }[];
}

export function answerReference(file: ReferenceFile): ReferenceAnswers {
  const answers: Record<string, unknown> = {};
  const refused: { id: string; reason: string }[] = [];
  for (const [topic, { cases }] of Object.entries(file.topics)) {
    const answer = answerers[topic];
    if (!answer) continue;
    for (const referenceCase of cases) {
      try {
        answers[referenceCase.id] = answer(referenceCase.inputs as never);
      } catch (reason) {
        refused.push({ id: referenceCase.id, reason: reason instanceof Error ? reason.message : String(reason) });
      }
    }
  }
  return { answers, left: Object.keys(file.topics).filter((topic) => !(topic in answerers)), refused };
}

export interface Miss {
  readonly id: string;
  readonly pointer: string;
  readonly expected: unknown;
  readonly found: unknown;
}

/** What is out of tolerance or missing among the topics reached. */
export function compareReference(file: ReferenceFile): readonly Miss[] {
  const { answers } = answerReference(file);
  return Object.entries(file.topics).flatMap(([topic, { cases }]) =>
    topic in answerers
      ? cases.flatMap((referenceCase) =>
          misses(referenceCase.id, '', referenceCase.expected, answers[referenceCase.id]),
        )
      : [],
  );
}

function misses(id: string, at: string, expected: unknown, found: unknown): Miss[] {
  if (isQuantity(expected))
    return isWithin(expected, found) ? [] : [{ id, pointer: at, expected: expected.value, found }];
  if (expected !== null && typeof expected === 'object') {
    const inside = (found ?? {}) as Record<string, unknown>;
    return Object.entries(expected).flatMap(([key, value]) => misses(id, `${at}/${key}`, value, inside[key]));
  }
  return Object.is(expected, found) ? [] : [{ id, pointer: at, expected, found }];
}

interface ReferenceQuantity {
  readonly value: number | null;
  readonly tol_abs?: number;
  readonly tol_rel?: number;
  readonly at_most?: number;
}

const isQuantity = (value: unknown): value is ReferenceQuantity =>
  value !== null &&
  typeof value === 'object' &&
  ('value' in value || 'at_most' in value) &&
  ('unit' in value || 'tol_abs' in value || 'tol_rel' in value);

function isWithin(expected: ReferenceQuantity, found: unknown): boolean {
  if (expected.value === null) return found === null;
  if (typeof found !== 'number') return false;
  if (expected.at_most !== undefined) return found <= expected.at_most;
  return (
    Math.abs(found - expected.value) <= (expected.tol_abs ?? 0) + (expected.tol_rel ?? 0) * Math.abs(expected.value)
  );
}

// ---- topic 10a ----

interface WireMessage {
  readonly type: string;
  readonly ch: number;
  readonly program: number;
  readonly cc: number;
  readonly value: number;
  readonly msb: number;
  readonly lsb: number;
  readonly note: number;
  readonly velocity: number;
  readonly data: readonly number[] | string;
}

function answerWire(messages: readonly WireMessage[]) {
  const all = messages.flatMap(messagesOf);
  const bytes = all.flatMap(encode);
  const running = encodeStream(all, { runningStatus: true });
  return {
    bytes_hex: hex(bytes).toLowerCase(),
    byte_count: bytes.length,
    wire_time: wireMicroseconds(bytes.length),
    running_status_bytes_hex: hex(running).toLowerCase(),
    running_status_byte_count: running.length,
    running_status_wire_time: wireMicroseconds(running.length),
  };
}

function messagesOf(wireMessage: WireMessage): MidiMessage[] {
  const { ch: channel } = wireMessage;
  switch (wireMessage.type) {
    case 'pc':
      return [{ kind: 'program', channel, program: wireMessage.program }];
    case 'cc':
      return [{ kind: 'control', channel, cc: wireMessage.cc, value: wireMessage.value }];
    case 'bank_pc':
      return [
        { kind: 'control', channel, cc: 0, value: wireMessage.msb },
        { kind: 'control', channel, cc: 32, value: wireMessage.lsb },
        { kind: 'program', channel, program: wireMessage.program },
      ];
    case 'note_on':
    case 'note_off':
      return [
        {
          kind: wireMessage.type === 'note_on' ? 'note-on' : 'note-off',
          channel,
          note: wireMessage.note,
          velocity: wireMessage.velocity,
        },
      ];
    case 'clock':
    case 'start':
    case 'stop':
      return [{ kind: wireMessage.type }];
    case 'sysex':
      return [
        {
          kind: 'sysex',
          data:
            typeof wireMessage.data === 'string'
              ? wireMessage.data.split(' ').map((byte) => Number.parseInt(byte, 16))
              : wireMessage.data,
        },
      ];
    default:
      throw new Error(`unknown message type "${wireMessage.type}"`);
  }
}

interface Quantity {
  readonly value: number;
}

// ---- topic 10b ----

function answerClock(tempo: number) {
  const interval = clockMilliseconds(tempo);
  return { interval, wire_share: clockShare(tempo), clocks_per_second: 1000 / interval };
}

// ---- topic 10d ----

function answerFile(text: string) {
  const read = readSmf(Uint8Array.from(text.match(/../g) ?? [], (pair) => Number.parseInt(pair, 16)));
  if (!read.ok) throw new Error(JSON.stringify(read.problems));
  const smf = read.value;
  const place = placer(smf);
  const events = smf.tracks.flatMap((track, i) =>
    track.map((event) => {
      const { bar, beat, tickInBeat, seconds } = place(event.tick);
      return {
        track: i + 1,
        bar,
        beat,
        tick_in_beat: tickInBeat,
        ...named(event),
        abs_tick: event.tick,
        time: seconds,
      };
    }),
  );
  const dump = smf.tracks.flatMap((track, i) => [
    `${i + 1}, 0, Start_track`,
    ...track.map((event) => `${i + 1}, ${event.tick}, ${dumped(event)}`),
  ]);
  return {
    events,
    midicsv_dump: [`0, 0, Header, ${smf.format}, ${smf.tracks.length}, ${smf.ppq}`, ...dump, '0, 0, End_of_file'],
  };
}

function named(event: SmfEvent): { readonly kind: string; readonly args: readonly (string | number)[] } {
  switch (event.kind) {
    case 'name':
    case 'marker':
    case 'text':
      return { kind: event.kind, args: [event.text] };
    case 'tempo':
      return { kind: 'tempo', args: [event.microseconds] };
    case 'meter':
      return { kind: 'timesig', args: [event.beats, event.unit] };
    case 'end':
      return { kind: 'end', args: [] };
    case 'other':
      return { kind: 'other', args: [event.status] };
    case 'message': {
      const { message } = event;
      if (message.kind === 'program') return { kind: 'pc', args: [message.channel, message.program] };
      if (message.kind === 'control') return { kind: 'cc', args: [message.channel, message.cc, message.value] };
      if (message.kind === 'sysex') return { kind: 'sysex', args: [...message.data] };
      return {
        kind: message.kind === 'note-on' ? 'note_on' : 'note_off',
        args: [message.channel, message.note, message.velocity],
      };
    }
    default:
      return assertNever(event, 'event');
  }
}

function dumped(event: SmfEvent): string {
  const { kind, args } = named(event);
  const [first, ...rest] = args;
  switch (kind) {
    case 'name':
      return `Title_t, "${first}"`;
    case 'marker':
      return `Marker_t, "${first}"`;
    case 'text':
      return `Text_t, "${first}"`;
    case 'tempo':
      return `Tempo, ${first}`;
    case 'timesig':
      return `Time_signature, ${first}, ${Math.log2(Number(rest[0]))}, 24, 8`;
    case 'end':
      return 'End_track';
    case 'pc':
    case 'cc':
    case 'note_on':
    case 'note_off':
      return [
        { pc: 'Program_c', cc: 'Control_c', note_on: 'Note_on_c', note_off: 'Note_off_c' }[kind],
        Number(first) - 1,
        ...rest,
      ].join(', ');
    default:
      return 'Unknown';
  }
}

function answerAllocation(inputs: AllocationInputs): unknown {
  const problem = allocationOf(inputs);
  const compiled = compileProblem(problem);
  if (!compiled.ok) throw new Error(JSON.stringify(compiled.problems));
  const { cost } = allocateNow(compiled.value);
  return { optimum: cost ? costVector(cost) : 'none', min_loops: fewestLoopsNow(problem) ?? 'none' };
}

function answerSupply(inputs: SupplyInputs): unknown {
  const compiled = compileSupply(supplyOf(inputs));
  if (!compiled.ok) throw new Error(JSON.stringify(compiled.problems));
  return {
    optimum: supplyVector(solveSupplyNow(compiled.value).cost!),
    conflict: supplyConflictNow(compiled.value)?.loads.length ?? 0,
  };
}

// ---- topic 07 ----

interface WireInputs {
  readonly supply: Quantity;
  readonly current: Quantity;
  readonly awg: Quantity;
  readonly one_way_length: Quantity;
}

function answerDrop(inputs: WireInputs) {
  const gauge = inputs.awg.value;
  const ma = inputs.current.value;
  const loop = loopOhms(gauge, inputs.one_way_length.value);
  const drop = voltsLost(loop, ma);
  return {
    wire_diameter: wireDiameter(gauge),
    ohm_per_km: ohmsPerMetre(gauge) * 1000,
    loop_resistance: loop,
    drop,
    load_voltage: inputs.supply.value - drop,
    wire_loss: drop * ma,
  };
}
