import type { ControlRef, Sound } from '../model/rig.ts';
import { controlRef } from '../model/documents.ts';
import type { TraceEdge, TraceGraph } from './graph.ts';
import type { Tracer } from './trace.ts';

/** A device, or one control of it, whose doing is followed to the ends of the line. */
export interface Doing {
  readonly device: string;
  readonly control?: string;
}

/** Ends at which what it does is heard in a sound. */
export const endsHeard = (tracer: Tracer, sound: Sound, doing: Doing): ReadonlySet<string> =>
  endsAfter(tracer, doing, (edge) => tracer.passesThrough(sound, edge));

/** Ends that it could be heard at with some setting of the rig's controls, each path taken by itself. */
export const endsWithinReach = (tracer: Tracer, doing: Doing): ReadonlySet<string> =>
  endsAfter(tracer, doing, () => true);

function endsAfter(tracer: Tracer, doing: Doing, isOpen: (edge: number) => boolean): ReadonlySet<string> {
  const { graph } = tracer;
  const seen = new Set<number>();
  for (const edge of graph.edges)
    if (edge.active && isOpen(edge.index) && isDoneBy(tracer, edge, doing)) seen.add(edge.to);
  for (const node of seen)
    for (let k = graph.leaving.start[node]; k < graph.leaving.start[node + 1]; k += 1) {
      const edge = graph.leaving.items[k];
      if (isOpen(edge)) seen.add(graph.to[edge]);
    }
  return endsAt(graph, seen);
}

const endsAt = ({ destinations }: TraceGraph, nodes: ReadonlySet<number>): ReadonlySet<string> =>
  new Set(destinations.flatMap(({ node, device }) => (nodes.has(node) ? [device] : [])));

function isDoneBy({ wiring }: Tracer, edge: TraceEdge, { device, control }: Doing): boolean {
  if (edge.device !== device) return false;
  if (control === undefined) return true;
  const ref: ControlRef = controlRef(device, control);
  return (
    edge.parameters.some((parameter) => wiring.controls.refs[parameter] === ref) ||
    edge.when.some((condition) => condition.ref === ref)
  );
}
