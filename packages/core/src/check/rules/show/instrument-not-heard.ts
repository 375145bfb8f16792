import { domainValues, type ControlValue } from '../../../model/anatomy.ts';
import { soundOfCast } from '../../../model/casting.ts';
import { castOf, controlRef } from '../../../model/documents.ts';
import { inputsOf, instrumentNamed, instrumentOfPart, instrumentsOf } from '../../../model/instruments.ts';
import { cueLabel } from '../../../model/labels.ts';
import type { Cast, Sound } from '../../../model/rig.ts';
import { partsInSetOrder } from '../../../model/set-order.ts';
import { ownerOf } from '../../../model/wiring.ts';
import type { Step } from '../../../change/steps.ts';
import { type Context, defineRule } from '../../define-rule.ts';

export const instrumentNotHeard = defineRule({
  meta: {
    id: 'show/instrument-not-heard',
    severity: 'stops-the-show',
    title: 'The instrument of a part does not come through',
    why: 'The part is played on an instrument whose input is not on in its sound: the player strikes a chord and nobody hears it.',
    remedy: 'Put its input on in the sound, or plan the move of the selector for the part.',
    source: 'the trace of the sound, with what is planned for the part',
    messages: {
      one: '{part} is played on {instrument} (in {input}), which is not heard in {sound}.',
      several: '{part} and {more} more are played on {instrument} (in {input}), which is not heard in {sound}.',
    },
  },
  check: (context) => {
    const { show, wiring } = context;
    if (instrumentsOf(wiring).length < 2) return [];
    const { parts, songs } = show.songbook;
    return [...unheard(context).values()].map((same) => {
      const [{ part: id, instrument, sound }] = same;
      const part = parts[id];
      const cue = switchFor(context, instrument, sound);
      const data = {
        part: `${songs[part.song].name}, ${part.name}`,
        instrument: wiring.device.get(instrument)!.device.name,
        input: inputsOf(wiring, instrument).join(' and ') || 'nothing',
        sound: sound.name,
      };
      return {
        messageId: same.length > 1 ? ('several' as const) : ('one' as const),
        at: { part: id },
        data: same.length > 1 ? { ...data, more: same.length - 1 } : data,
        ...(cue
          ? { fix: { label: `Plan it: ${cueLabel(wiring, cue.control, cue.value)}`, steps: same.map(planned(cue)) } }
          : {}),
      };
    });
  },
});

interface Unheard {
  readonly part: string;
  readonly cast: Cast;
  readonly instrument: string;
  readonly sound: Sound;
}

interface Cue {
  readonly control: string;
  readonly value: ControlValue;
}

/** Parts whose instrument does not sound, those of one instrument in one sound together, in the order of the set. */
function unheard(context: Context): ReadonlyMap<string, readonly Unheard[]> {
  const { show, wiring } = context;
  const found = new Map<string, Unheard[]>();
  const hears = new Map<string, boolean>();
  for (const part of partsInSetOrder(show)) {
    const name = instrumentOfPart(show, show.songbook.parts[part]);
    const instrument = name === undefined ? undefined : instrumentNamed(wiring, name)?.device.id;
    const cast = castOf(show.rig, part);
    const sound = cast && soundOfCast(show.rig, cast);
    if (instrument === undefined || !cast || !sound || sound.silence) continue;
    // What feet press by hand-written steps is followed by the proof, not by the planned state.
    const steps = [...cast.before, ...cast.after];
    if (steps.some(({ kind }) => kind === 'foot')) continue;
    const cues = steps.flatMap((step) => (step.kind === 'cue' ? [step] : []));
    const key = JSON.stringify([instrument, sound.id, cues]);
    let is = hears.get(key);
    if (is === undefined) hears.set(key, (is = isHeard(context, instrument, withCues(sound, cues))));
    const together = `${instrument} ${sound.id}`;
    if (!is) found.set(together, [...(found.get(together) ?? []), { part, cast, instrument, sound }]);
  }
  return found;
}

const withCues = (sound: Sound, cues: readonly Cue[]): Sound => ({
  ...sound,
  wants: { ...sound.wants, ...Object.fromEntries(cues.map(({ control, value }) => [control, value])) },
});

/** Whether an instrument is on the way to an end; where nothing sounds at all, that is told elsewhere. */
function isHeard({ tracer }: Context, instrument: string, sound: Sound): boolean {
  const trace = tracer.trace(sound);
  return !trace.sounds || trace.passes.some((pass) => pass.device === instrument);
}

/** So many values of a control are tried. */
const mostTried = 16;

/** The one move of a hand or a foot that brings it in. */
function switchFor(context: Context, instrument: string, sound: Sound): Cue | undefined {
  for (const wired of context.wiring.devices)
    for (const control of wired.anatomy.controls) {
      if (ownerOf(wired, control) === 'programmed' || control.domain.kind === 'range') continue;
      if (control.domain.kind === 'position' && control.domain.count > mostTried) continue;
      for (const value of domainValues(control.domain).slice(0, mostTried)) {
        const cue = { control: controlRef(wired.device.id, control.id), value };
        const trace = context.tracer.trace(withCues(sound, [cue]));
        if (trace.sounds && trace.passes.some((pass) => pass.device === instrument)) return cue;
      }
    }
  return undefined;
}

const planned =
  ({ control, value }: Cue) =>
  ({ cast }: Unheard): Step => ({
    doc: 'rig',
    op: 'set',
    at: ['casting', cast.id, 'before'],
    value: [...cast.before, { kind: 'cue', control, value }],
    old: cast.before,
  });
