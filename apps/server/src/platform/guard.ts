import type { NextFunction, Request, Response } from 'express';
import { sendProblem } from './problem.ts';

/** A local server is still a server: only our own page on this machine may speak to it. */
export function localOnly(port: () => number) {
  return (request: Request, response: Response, next: NextFunction): void => {
    const hosts = [`127.0.0.1:${port()}`, `localhost:${port()}`];
    const { host, origin } = request.headers;
    if (!host || !hosts.includes(host)) return sendProblem(response, 403, 'wrong-host', 'This address is not ours.');
    if (origin !== undefined && !hosts.some((host) => origin === `http://${host}`))
      return sendProblem(response, 403, 'wrong-origin', 'Requests from other pages are refused.');
    if (mustBeJson(request) && !request.is('application/json'))
      return sendProblem(response, 415, 'json-only', 'Send application/json.');
    next();
  };
}

/** A DELETE says all in its address; no other page can send one, for the browser asks first, and is refused. */
function mustBeJson({ method, headers }: Request): boolean {
  const hasBody = headers['transfer-encoding'] !== undefined || Number(headers['content-length'] ?? 0) > 0;
  return method === 'DELETE' ? hasBody : !['GET', 'HEAD'].includes(method);
}
