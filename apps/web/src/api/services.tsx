import { type Remote, wrap } from 'comlink';
import { createContext, useContext } from 'react';
import type { JudgeApi } from '../workers/judge.worker.ts';
import type { PlanApi } from '../workers/plan.worker.ts';
import type { PdfApi } from '../workers/pdf.worker.ts';
import { browserTransport, type Transport } from './store.ts';

/** What the page works with beside its own thread, each started when it is first asked for. */
export interface Services {
  /** The worker that judges; it holds each open show under its id. */
  readonly judge: () => Remote<JudgeApi>;
  /** The worker that works plans out. */
  readonly plan: () => Remote<PlanApi>;
  /** The worker that prints. */
  readonly pdf: () => Remote<PdfApi>;
  /** The server, this browser's storage, and its other windows. */
  readonly transport: () => Transport;
}

export function startServices(): Services {
  return {
    judge: once(() => wrap(new Worker(new URL('../workers/judge.worker.ts', import.meta.url), { type: 'module' }))),
    plan: once(() => wrap(new Worker(new URL('../workers/plan.worker.ts', import.meta.url), { type: 'module' }))),
    pdf: once(() => wrap(new Worker(new URL('../workers/pdf.worker.ts', import.meta.url), { type: 'module' }))),
    transport: once(browserTransport),
  };
}

function once<T>(make: () => T): () => T {
  let made: { readonly it: T } | undefined;
  return () => (made ??= { it: make() }).it;
}

const context = createContext<Services | null>(null);
export const ServicesProvider = context.Provider;

export function useServices(): Services {
  const services = useContext(context);
  if (!services) throw new Error('no services are started here');
  return services;
}
