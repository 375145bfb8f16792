import { keepPreviousData, useQuery } from '@tanstack/react-query';
import type { PartPlan } from '@yunta/core';
import { useMemo } from 'react';
import { useFindings, useRig } from '../../api/rig.tsx';
import { useServices } from '../../api/services.tsx';

/** What is done for each part of the set, by part; until it is known, what was before the edit. */
export function usePartPlans(): ReadonlyMap<string, PartPlan> {
  const { judge } = useServices();
  const { id } = useRig();
  const serial = useFindings().judged?.serial;
  const { data } = useQuery({
    queryKey: ['part-plans', id, serial],
    queryFn: () => judge().partPlans(id),
    enabled: serial !== undefined,
    staleTime: Infinity,
    gcTime: 60_000,
    placeholderData: keepPreviousData,
    structuralSharing: false,
  });
  return useMemo(() => new Map((data ?? []).map((plan) => [plan.part, plan])), [data]);
}
