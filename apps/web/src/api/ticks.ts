import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import type { Tick } from '@yunta/contract';
import { listTicks, setTick } from './shows.ts';

export interface Ticks {
  readonly said: ReadonlyMap<string, Tick>;
  readonly set: (line: string, said: string, done: boolean) => void;
  readonly error: string | null;
}

/** What of the worksheet has been entered; a press shows at once and is taken back where the server refuses it. */
export function useTicks(show: string): Ticks {
  const queries = useQueryClient();
  const key = ['ticks', show];
  const ticks = useQuery({ queryKey: key, queryFn: () => listTicks(show) });
  const change = useMutation({
    mutationFn: (tick: { readonly line: string; readonly said: string; readonly done: boolean }) => setTick(show, tick),
    onMutate: async ({ line, said, done }) => {
      await queries.cancelQueries({ queryKey: key });
      const before = queries.getQueryData<Tick[]>(key);
      const others = (before ?? []).filter((tick) => tick.line !== line);
      queries.setQueryData<Tick[]>(
        key,
        done ? [...others, { line, said, at: new Date().toISOString(), actor: 'me' }] : others,
      );
      return { before };
    },
    onError: (_reason, _tick, kept) => queries.setQueryData(key, kept?.before),
    onSettled: () => queries.invalidateQueries({ queryKey: key }),
  });
  const error = ticks.error ?? change.error;
  return {
    said: new Map((ticks.data ?? []).map((tick) => [tick.line, tick])),
    set: (line, said, done) => change.mutate({ line, said, done }),
    error: error ? `Ticks: ${error.message}` : null,
  };
}
