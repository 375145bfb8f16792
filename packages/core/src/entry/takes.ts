import type { Carries } from '../model/jack-kinds.ts';
import type { Taken } from './guess-type.ts';
import type { Statement } from './statements.ts';

/** What the text sends into which names besides sound: it tells a delay with MIDI from one without. */
export type Takes = ReadonlyMap<string, ReadonlySet<Taken>>;

export function takesOf(statements: readonly Statement[]): Takes {
  const found = new Map<string, Set<Taken>>();
  const note = (name: string, carries: Taken) =>
    found.set(name.toLowerCase(), (found.get(name.toLowerCase()) ?? new Set()).add(carries));
  for (const { stops, carries, stereo } of statements)
    for (const [at, stop] of stops.entries())
      for (const typed of stop) {
        // Of several that both sides go to, each takes one.
        if (stop.length === 1 && (stereo[at] || stereo[at - 1])) note(typed, 'stereo');
        const jack = /^(.*?)\s+(midi|contact|remote)\b.*$/i.exec(typed);
        const said = carries ?? saidBy(stops[0][0]);
        if (at > 0 && said) note(jack ? jack[1] : typed, said);
        else if (at > 0 && jack) note(jack[1], jack[2].toLowerCase() === 'midi' ? 'midi' : 'contact');
      }
  return found;
}

/** What a run carries whose first end is said so: `contact 1`, `switcher midi out`. */
const saidBy = (first: string): Carries | undefined =>
  /\bcontact\b/i.test(first) ? 'contact' : /\bmidi (out|thru|through)\b/i.test(first) ? 'midi' : undefined;
