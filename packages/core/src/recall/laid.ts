import type { Sound } from '../model/documents.ts';

const noCues: ReadonlyMap<number, number> = new Map();

/** Stands where a sound wants nothing of a variable. */
export const unwanted = -1;

/** What a sound lays over a state. */
export class Laid {
  private ownNames: ReadonlySet<number> | undefined;
  private readonly byVariable: Int32Array;

  /** `variables` and `wanted`: at each place a variable and the value wanted of it; `names`: 1 where the sound names it itself (or through its pedals). */
  constructor(
    readonly sound: Sound,
    readonly variables: Int32Array,
    readonly wanted: Int32Array,
    private readonly names: Uint8Array,
    /** Cues: what the player sets, taken as done from level 2 on. */
    readonly obeyed: ReadonlyMap<number, number>,
    /** How many variables there are. */
    private readonly size: number,
  ) {
    const byVariable = new Int32Array(size).fill(unwanted);
    for (let i = 0; i < variables.length; i += 1) byVariable[variables[i]] = wanted[i];
    this.byVariable = byVariable;
  }

  /** The value wanted of a variable, with the stored values that wanted presets bring along; `unwanted` where there is none. */
  wants(variable: number): number {
    return this.byVariable[variable];
  }

  has(variable: number): boolean {
    return this.byVariable[variable] !== unwanted;
  }

  /** Variables that the sound names itself, not by the presets that it wants. */
  get named(): ReadonlySet<number> {
    return (this.ownNames ??= new Set(this.variables.filter((_, i) => this.names[i] === 1)));
  }

  /** The same where nothing that the player sets is taken as done. */
  disobeyed(): Laid {
    return new Laid(this.sound, this.variables, this.wanted, this.names, noCues, this.size);
  }

  /** Some of its wants alone, as if the sound named only one of them. */
  restrictedTo(variables: ReadonlySet<number>, named: number): Laid {
    const kept = [...this.variables.keys()].filter((i) => variables.has(this.variables[i]));
    const pick = (from: Int32Array) => Int32Array.from(kept, (i) => from[i]);
    return new Laid(this.sound, pick(this.variables), pick(this.wanted), Uint8Array.from(kept, (i) => (this.variables[i] === named ? 1 : 0)), this.obeyed, this.size);
  }
}
