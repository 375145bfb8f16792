import type { NextFunction, Request, Response } from 'express';

/** A local server is still a server: only our own page on this machine may speak to it. */
export function localOnly(port: () => number) {
  return (request: Request, response: Response, next: NextFunction): void => {
    const hosts = [`127.0.0.1:${port()}`, `localhost:${port()}`];
    const { host, origin } = request.headers;
    const changes = !['GET', 'HEAD'].includes(request.method);
    if (!host || !hosts.includes(host)) return refuse(response, 403, 'wrong-host', 'This address is not ours.');
    if (origin !== undefined && !hosts.some((one) => origin === `http://${one}`)) return refuse(response, 403, 'wrong-origin', 'Requests from other pages are refused.');
    if (changes && !request.is('application/json')) return refuse(response, 415, 'json-only', 'Send application/json.');
    next();
  };
}

function refuse(response: Response, status: number, code: string, title: string): void {
  response.status(status).type('application/problem+json').send(JSON.stringify({ type: `urn:yunta:problem:${code}`, title, status, code, errors: [] }));
}
