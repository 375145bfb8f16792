import { useQuery } from '@tanstack/react-query';
import type { Figures, Show } from '@yunta/core';
import { useMemo } from 'react';
import { useServices } from '../../api/services.tsx';

/** What is counted of a rig, worked out beside the page; null while it is not known. */
export function useFigures(show: Show | null): Figures | null {
  const { plan } = useServices();
  const key = useMemo(() => (show ? JSON.stringify(show) : ''), [show]);
  const { data } = useQuery({
    queryKey: ['figures', key],
    queryFn: () => plan().figures(show!),
    enabled: show !== null,
    staleTime: Infinity,
    gcTime: 60_000,
  });
  return data ?? null;
}
