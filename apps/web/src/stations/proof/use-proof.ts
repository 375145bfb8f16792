import { keepPreviousData, useQuery } from '@tanstack/react-query';
import type { FootPlan, Level, StrayReport } from '@yunta/core';
import { useFindings, useRig } from '../../api/rig.tsx';
import { useServices } from '../../api/services.tsx';
import type { Proved } from '../../workers/judge-types.ts';

/** One level of the proof over what was judged last; until it is there, what was proved before. */
function useLevel(
  level: Level,
  serial: number | undefined,
  isDue: boolean,
): { readonly proved: Proved | null; readonly isDone: boolean } {
  const { judge } = useServices();
  const { id } = useRig();
  const { data, isPlaceholderData } = useQuery({
    queryKey: ['proof', id, serial, level],
    // Null where something newer was judged meanwhile: that has a key of its own.
    queryFn: () => judge().prove(id, level),
    enabled: serial !== undefined && isDue,
    staleTime: Infinity,
    gcTime: 60_000,
    placeholderData: keepPreviousData,
    structuralSharing: false,
  });
  return { proved: data ?? null, isDone: data !== undefined && !isPlaceholderData };
}

/** Level 3 by the switch that is pressed; null until it is known. */
export function useAccidentalPresses(proof: Partial<Record<Level, Proved>>): readonly StrayReport[] | null {
  const { judge } = useServices();
  const { id } = useRig();
  const serial = useFindings().judged?.serial;
  const { data } = useQuery({
    queryKey: ['strays', id, serial],
    queryFn: () => judge().strays(id),
    enabled: serial !== undefined && proof[3] !== undefined,
    staleTime: Infinity,
    gcTime: 60_000,
    placeholderData: keepPreviousData,
    structuralSharing: false,
  });
  return data ?? null;
}

/** What feet and hands do where no slot plays; null until it is known. */
export function useFootPlan(): FootPlan | null {
  const { judge } = useServices();
  const { id } = useRig();
  const serial = useFindings().judged?.serial;
  const { data } = useQuery({
    queryKey: ['foot-plan', id, serial],
    queryFn: () => judge().footPlan(id),
    enabled: serial !== undefined,
    staleTime: Infinity,
    gcTime: 60_000,
    placeholderData: keepPreviousData,
    structuralSharing: false,
  });
  return data ?? null;
}

/** The four levels, one after the other, anew after every judgement and once for all stations that show them. */
export function useProof(): Partial<Record<Level, Proved>> {
  const serial = useFindings().judged?.serial;
  const anywhere = useLevel(2, serial, true);
  const inOrder = useLevel(1, serial, anywhere.isDone);
  const accidental = useLevel(3, serial, inOrder.isDone);
  const afterFault = useLevel(4, serial, accidental.isDone);
  const levels: Partial<Record<Level, Proved>> = {};
  for (const { proved } of [anywhere, inOrder, accidental, afterFault]) if (proved) levels[proved.level] = proved;
  return levels;
}
