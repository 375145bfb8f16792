import { describeProblem } from '@yunta/core';
import type { ProblemDetails } from '@yunta/contract';

/** An error with what the server told of it. */
interface ReportedError extends Error {
  readonly details?: ProblemDetails | null;
}

/** What was refused, with each place and reason. */
export function Refusal({ error, what }: { readonly error: ReportedError; readonly what?: string }) {
  const problems = error.details?.errors ?? [];
  const placed = problems.filter((problem) => problem.pointer !== '');
  return (
    <div className="refusal" role="alert" style={{ display: 'block' }}>
      <b>{what ?? (placed.length > 0 ? 'Refused, nothing was changed.' : error.message)}</b>
      {what && placed.length === 0 && <> {error.message}</>}
      {placed.slice(0, 8).map((problem, i) => (
        <div key={i}>
          <span className="mono">{problem.pointer}</span> {describeProblem(problem)}
        </div>
      ))}
    </div>
  );
}
