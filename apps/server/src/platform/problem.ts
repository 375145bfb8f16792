import { type ArgumentsHost, Catch, type ExceptionFilter, HttpException, Logger } from '@nestjs/common';
import { describeProblem, type Problem, type ProblemCode } from '@yunta/core';
import type { ProblemDetails } from '@yunta/contract';
import type { Response } from 'express';

/** A refusal on its way out: the core's problems, mapped to a status in one place. */
export class Refused extends Error {
  constructor(readonly problems: readonly Problem[]) {
    super(problems.map(describeProblem).join(' '));
  }
}

const conflicts: ReadonlySet<ProblemCode> = new Set(['old-value-differs', 'already-there']);
const tooLarge: ReadonlySet<ProblemCode> = new Set(['too-large', 'too-deep']);

function statusOf(problems: readonly Problem[]): number {
  const [first] = problems;
  if (!first) return 500;
  if (conflicts.has(first.code)) return 409;
  if (tooLarge.has(first.code)) return 413;
  if (first.code === 'not-json') return 400;
  return first.code === 'not-found' && first.pointer === '' ? 404 : 422;
}

@Catch()
export class ProblemFilter implements ExceptionFilter {
  private readonly logger = new Logger('problem');

  catch(reason: unknown, host: ArgumentsHost): void {
    const response = host.switchToHttp().getResponse<Response>();
    const details = this.detailsOf(reason);
    if (details.status >= 500) this.logger.error(reason instanceof Error ? (reason.stack ?? reason.message) : String(reason));
    response.status(details.status).type('application/problem+json').send(JSON.stringify(details));
  }

  private detailsOf(reason: unknown): ProblemDetails {
    if (reason instanceof Refused) {
      const [first] = reason.problems;
      return { type: `urn:yunta:problem:${first?.code}`, title: first ? describeProblem(first) : 'Refused', status: statusOf(reason.problems), code: first?.code ?? 'refused', errors: reason.problems };
    }
    const status = reason instanceof HttpException ? reason.getStatus() : statusOfParser(reason);
    const code = status === 400 ? 'not-json' : status === 404 ? 'not-found' : status === 413 ? 'too-large' : status < 500 ? 'refused' : 'fault';
    const title = status >= 500 ? 'Something went wrong here. Nothing was changed; try again.' : reason instanceof Error ? reason.message : 'Refused';
    return { type: `urn:yunta:problem:${code}`, title, status, code, errors: [] };
  }
}

/** Body parsers carry their status on the error. */
function statusOfParser(reason: unknown): number {
  const status = (reason as { status?: unknown } | null)?.status;
  return typeof status === 'number' && status >= 400 && status < 500 ? status : 500;
}
