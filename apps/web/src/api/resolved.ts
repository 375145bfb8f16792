import { isWiredAlike, relabelled, type Rig, Tracer, buildWiring, type Wiring } from '@yunta/core';

export interface ResolvedRig {
  readonly wiring: Wiring;
  readonly tracer: Tracer;
}

/** Resolves rigs for asking, one after the other: what an edit does not touch is taken over from the one before. */
export class Resolver {
  private last: ResolvedRig | null = null;

  resolve(rig: Rig): ResolvedRig {
    if (this.last?.wiring.rig === rig) return this.last;
    if (this.last && isWiredAlike(this.last.wiring.rig, rig))
      this.last = { wiring: relabelled(this.last.wiring, rig), tracer: this.last.tracer };
    else {
      const wiring = buildWiring(rig);
      this.last = { wiring, tracer: new Tracer(wiring) };
    }
    return this.last;
  }
}
