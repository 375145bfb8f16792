import { useQuery } from '@tanstack/react-query';
import { type Show, variantOf } from '@yunta/core';
import { useMemo } from 'react';
import { useSaved, useShow } from '../../../api/rig.tsx';
import { readRevision, readShow } from '../../../api/shows.ts';

/** The show that a choice names: the rig, a variant, a kept revision or another rig, both read from the server. */
export function useSide(choice: string): { readonly show: Show | null; readonly error: Error | null } {
  const { id } = useShow();
  const { base } = useSaved();
  const [kind, key] = choice.split(' ');
  const kept = useQuery({
    queryKey: ['revision', id, key],
    queryFn: () => readRevision(id, key),
    enabled: kind === 'revision',
    staleTime: Infinity,
  });
  const other = useQuery({ queryKey: ['show', key], queryFn: () => readShow(key), enabled: kind === 'rig' });
  const own = useMemo(() => (kind === 'variant' ? variantOf(base, key).show : base), [base, kind, key]);
  const read = kind === 'revision' ? kept : kind === 'rig' ? other : null;
  if (!read) return { show: own, error: null };
  return { show: read.data ? { rig: read.data.rig, songbook: read.data.songbook } : null, error: read.error };
}
