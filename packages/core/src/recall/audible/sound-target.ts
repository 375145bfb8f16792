import type { Sound } from '../../model/rig.ts';
import type { VariableId } from '../state/ids.ts';

export const noCues: ReadonlyMap<number, number> = new Map();

/** Stands where a sound wants nothing of a variable. */
export const unwanted = -1;

/** What a sound lays over a state. */
export class SoundTarget {
  private ownNames: ReadonlySet<number> | undefined;
  private byVariable: Int32Array | undefined;

  /**
   * `variables` and `wanted`: at each place a variable and the value wanted of it; those that the sound names itself
   * (or through its pedals) come first.
   */
  constructor(
    readonly sound: Sound,
    readonly variables: Int32Array,
    readonly wanted: Int32Array,
    private readonly nameCount: number,
    /** Cues: what the player sets, taken as done from level 2 on. */
    readonly cues: ReadonlyMap<number, number>,
    /** How many variables there are. */
    private readonly size: number,
  ) {}

  /**
   * The value wanted of a variable, with the stored values that wanted presets bring along; `unwanted` where there is
   * none.
   */
  wants(variable: VariableId): number {
    return (this.byVariable ??= this.lookup())[variable];
  }

  has(variable: VariableId): boolean {
    return this.wants(variable) !== unwanted;
  }

  private lookup(): Int32Array {
    const { variables, wanted } = this;
    const byVariable = new Int32Array(this.size).fill(unwanted);
    for (let i = 0; i < variables.length; i += 1) byVariable[variables[i]] = wanted[i];
    return byVariable;
  }

  /** Variables that the sound names itself, not by the presets that it wants. */
  get named(): ReadonlySet<number> {
    return (this.ownNames ??= new Set(this.variables.subarray(0, this.nameCount)));
  }

  /** Wants nothing but to be heard: right where anything sounds. */
  static ofAnything(sound: Sound, size: number): SoundTarget {
    return new SoundTarget({ ...sound, silence: false }, new Int32Array(0), new Int32Array(0), 0, noCues, size);
  }

  /** The same where nothing that the player sets is taken as done. */
  withoutCues(): SoundTarget {
    return new SoundTarget(this.sound, this.variables, this.wanted, this.nameCount, noCues, this.size);
  }

  /** Some of its wants alone, as if the sound named only one of them. */
  restrictedTo(variables: ReadonlySet<VariableId>, named: number): SoundTarget {
    const kept = [...variables].filter((variable) => this.has(variable));
    const ordered = [
      ...kept.filter((variable) => variable === named),
      ...kept.filter((variable) => variable !== named),
    ];
    return new SoundTarget(
      this.sound,
      Int32Array.from(ordered),
      Int32Array.from(ordered, (variable) => this.wants(variable)),
      kept.includes(named) ? 1 : 0,
      this.cues,
      this.size,
    );
  }
}
