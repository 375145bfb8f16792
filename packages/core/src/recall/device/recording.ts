import type { Update } from './update.ts';

/** An update when it is done, and the lossy points (messages, pulses) on whose delivery it depends. */
export interface Operation {
  readonly update: Update;
  readonly time: number;
  readonly points: readonly number[];
}

/** What an event does, in the order of time, where that does not depend on the state: by columns. */
export class Recording {
  count = 0;

  constructor(
    readonly updates: Update[] = [],
    readonly times: number[] = [],
    readonly points: (readonly number[])[] = [],
  ) {}

  /** Forgets everything. */
  begin(): this {
    this.count = 0;
    return this;
  }

  take(update: Update, time: number, points: readonly number[]): void {
    const at = this.count;
    this.updates[at] = update;
    this.times[at] = time;
    this.points[at] = points;
    this.count = at + 1;
  }

  /** The same to be kept. */
  copy(): Recording {
    const { updates, times, points, count } = this;
    let isWhole = true;
    for (let i = 0; i < count; i += 1) if (points[i].length > 0) isWhole = false;
    const copy = new Recording(
      updates.slice(0, count),
      times.slice(0, count),
      isWhole ? undefined : points.slice(0, count),
    );
    copy.count = count;
    return copy;
  }

  operations(): Operation[] {
    return this.chosen(() => true);
  }

  /** Those on variables of one device. */
  on(device: number): Operation[] {
    return this.chosen((update) => update.device === device);
  }

  private chosen(isChosen: (update: Update) => boolean): Operation[] {
    const { updates, times, points, count } = this;
    const chosen: Operation[] = [];
    for (let i = 0; i < count; i += 1)
      if (isChosen(updates[i])) chosen.push({ update: updates[i], time: times[i], points: points[i] ?? noPoints });
    return chosen;
  }
}

export const noPoints: readonly number[] = [];
