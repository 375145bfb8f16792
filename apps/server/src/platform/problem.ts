import { randomBytes } from 'node:crypto';
import { type ArgumentsHost, Catch, type ExceptionFilter, HttpException, Logger } from '@nestjs/common';
import { describeProblem, type Problem, type ProblemCode } from '@yunta/core';
import type { ProblemDetails } from '@yunta/contract';
import type { Response } from 'express';
import { isAway, isDiskFull, isPassing } from '../persistence/retry.ts';

/** A refusal on its way out: the core's problems, mapped to a status in one place. */
export class ProblemException extends Error {
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

const write = (response: Response, details: ProblemDetails): void =>
  void response.status(details.status).type('application/problem+json').send(JSON.stringify(details));

export const sendProblem = (response: Response, status: number, code: string, title: string): void =>
  write(response, { type: `urn:yunta:problem:${code}`, title, status, code, errors: [] });

export const databaseAway = 'The database does not answer just now. Try again in a moment.';

@Catch()
export class ProblemFilter implements ExceptionFilter {
  private readonly logger = new Logger('problem');

  catch(reason: unknown, host: ArgumentsHost): void {
    const response = host.switchToHttp().getResponse<Response>();
    // Whoever waited too long has been answered already.
    if (response.headersSent) return;
    write(response, this.detailsOf(reason));
  }

  private detailsOf(reason: unknown): ProblemDetails {
    if (reason instanceof ProblemException) {
      const [first] = reason.problems;
      return {
        type: `urn:yunta:problem:${first?.code}`,
        title: first ? describeProblem(first) : 'Refused',
        status: statusOf(reason.problems),
        code: first?.code ?? 'refused',
        errors: reason.problems,
      };
    }
    if (isAway(reason)) return this.passing('database-away', 503, databaseAway, reason);
    if (isPassing(reason))
      return this.passing('busy', 503, 'Others are writing to the same rig just now. Try again in a moment.', reason);
    if (isDiskFull(reason))
      return this.passing('disk-full', 507, 'The disk is full. Make room; nothing was changed.', reason);
    const status = reason instanceof HttpException ? reason.getStatus() : statusOfParser(reason);
    if (status >= 500) return this.fault(reason, status);
    const code = status === 400 ? 'not-json' : status === 404 ? 'not-found' : status === 413 ? 'too-large' : 'refused';
    return {
      type: `urn:yunta:problem:${code}`,
      title: reason instanceof Error ? reason.message.slice(0, 500) : 'Refused',
      status,
      code,
      errors: [],
    };
  }

  private passing(code: string, status: number, title: string, reason: unknown): ProblemDetails {
    this.logger.warn(`${code}: ${reason instanceof Error ? reason.message.slice(0, 300) : String(reason)}`);
    return { type: `urn:yunta:problem:${code}`, title, status, code, errors: [] };
  }

  /** Nobody foresaw it: the answer names an id under which the log has the whole story. */
  private fault(reason: unknown, status: number): ProblemDetails {
    const id = randomBytes(4).toString('hex');
    this.logger.error(`fault ${id}: ${reason instanceof Error ? (reason.stack ?? reason.message) : String(reason)}`);
    return {
      type: 'urn:yunta:problem:fault',
      title: `Something went wrong here. Nothing was changed. The log has it under ${id}.`,
      status,
      code: 'fault',
      id,
      errors: [],
    };
  }
}

/** Body parsers carry their status on the error. */
function statusOfParser(reason: unknown): number {
  const status = (reason as { status?: unknown } | null)?.status;
  return typeof status === 'number' && status >= 400 && status < 500 ? status : 500;
}
