import type { NextFunction, Request, Response } from 'express';
import { databaseAway, sendProblem } from './problem.ts';

/**
 * Whoever asks gets an answer within so many ms, though the database may give none; copies of all data and restores
 * excepted.
 */
export const answerLimit = 12_000;

export function timeLimit(request: Request, response: Response, next: NextFunction): void {
  if (/^\/api\/backups?(\/|$)/.test(request.path)) return next();
  const timer = setTimeout(() => {
    if (!response.headersSent) sendProblem(response, 503, 'database-away', databaseAway);
  }, answerLimit);
  response.once('close', () => clearTimeout(timer));
  next();
}
