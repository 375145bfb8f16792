import type http from 'node:http';
import type { Socket } from 'node:net';
import { type BeforeApplicationShutdown, Inject, Injectable, type OnApplicationBootstrap } from '@nestjs/common';
import { HttpAdapterHost } from '@nestjs/core';

/** How often connections at rest are closed while the server closes, ms. */
const every = 25;

/**
 * Closes connections as soon as they are at rest, until the server has closed. Node does this once, when closing
 * begins: a connection that was answering just then lives on, and a page that asks again and again over it would keep
 * the server up for ever. Nor does Node close one over which nothing was ever asked, as browsers open them in advance:
 * it would wait for it a minute and longer. What is being answered is answered to its end.
 */
@Injectable()
export class IdleConnectionCloser implements OnApplicationBootstrap, BeforeApplicationShutdown {
  private readonly open = new Set<Socket>();

  constructor(@Inject(HttpAdapterHost) private readonly host: HttpAdapterHost) {}

  onApplicationBootstrap(): void {
    this.server().on('connection', (socket: Socket) => {
      this.open.add(socket);
      socket.once('close', () => this.open.delete(socket));
    });
  }

  beforeApplicationShutdown(): void {
    const server = this.server();
    const turn = setInterval(() => {
      server.closeIdleConnections();
      for (const socket of this.open) if (socket.bytesRead === 0) socket.destroy();
    }, every);
    server.once('close', () => clearInterval(turn));
  }

  private server(): http.Server {
    return this.host.httpAdapter.getHttpServer() as http.Server;
  }
}
