import { useMutation, type UseMutationResult, useQuery, useQueryClient } from '@tanstack/react-query';
import { catalogue, type CatalogueEntry, type DeviceType, libraryOf } from '@yunta/core';
import type { ArrivedTypes, KeptType } from '@yunta/contract';
import { useMemo } from 'react';
import { bringTypes, keepType, listTypes, removeType } from './shows.ts';

const key = ['types'];
const none: readonly KeptType[] = [];

export interface Library {
  /** One's own types, by name. */
  readonly own: readonly KeptType[];
  /** All that a name may mean: one's own first, then the generic ones. */
  readonly entries: readonly CatalogueEntry[];
  /** One's own types are on their way for the first time: a name may mean more in a moment. */
  readonly isComing: boolean;
  readonly error: Error | null;
}

/** The types that people made, beside the generic ones. While the server is away there are these alone. */
export function useLibrary(): Library {
  const types = useQuery({ queryKey: key, queryFn: listTypes });
  const own = types.data ?? none;
  const entries = useMemo(() => (own.length === 0 ? catalogue : libraryOf(own.map(({ type }) => type))), [own]);
  const isComing = types.isPending && types.fetchStatus === 'fetching' && types.failureCount === 0;
  return { own, entries, isComing, error: types.error };
}

interface Keeping {
  readonly type: DeviceType;
  readonly base: number | null;
}

/** What is done to the library; its list is read anew after each. */
export function useLibraryEdits(): {
  readonly keep: UseMutationResult<DeviceType, Error, Keeping>;
  readonly bring: UseMutationResult<ArrivedTypes, Error, string>;
  readonly remove: UseMutationResult<void, Error, string>;
} {
  const queries = useQueryClient();
  const onSettled = () => queries.invalidateQueries({ queryKey: key });
  return {
    keep: useMutation({ mutationFn: ({ type, base }: Keeping) => keepType(type, base), onSettled }),
    bring: useMutation({ mutationFn: bringTypes, onSettled }),
    remove: useMutation({ mutationFn: removeType, onSettled }),
  };
}
