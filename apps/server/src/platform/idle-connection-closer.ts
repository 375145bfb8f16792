import type http from 'node:http';
import { type BeforeApplicationShutdown, Inject, Injectable } from '@nestjs/common';
import { HttpAdapterHost } from '@nestjs/core';

/** How often connections at rest are let go while the server closes, ms. */
const every = 25;

/**
 * Lets kept-alive connections go as soon as they are at rest, until the server has closed. Node does this once,
 * when closing begins: a connection that was answering just then lives on, and a page that asks again and again
 * over it would keep the server up for ever. What is being answered is answered to its end.
 */
@Injectable()
export class IdleConnectionCloser implements BeforeApplicationShutdown {
  constructor(@Inject(HttpAdapterHost) private readonly host: HttpAdapterHost) {}

  beforeApplicationShutdown(): void {
    const server = this.host.httpAdapter.getHttpServer() as http.Server;
    const turn = setInterval(() => server.closeIdleConnections(), every);
    server.once('close', () => clearInterval(turn));
  }
}
