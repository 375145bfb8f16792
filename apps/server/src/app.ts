import 'reflect-metadata';
import { existsSync } from 'node:fs';
import path from 'node:path';
import { type INestApplication, Logger, Module } from '@nestjs/common';
import { NestFactory } from '@nestjs/core';
import type { NestExpressApplication } from '@nestjs/platform-express';
import { DocumentBuilder, SwaggerModule } from '@nestjs/swagger';
import { TypeOrmModule } from '@nestjs/typeorm';
import express from 'express';
import helmet from 'helmet';
import { BackupFolder } from './backups/backup-folder.ts';
import { BackupWriter } from './backups/backup-file.ts';
import { BackupsController } from './backups/backups.controller.ts';
import { BackupsService } from './backups/backups.service.ts';
import { writeTables } from './backups/tables.ts';
import { connected, databaseOptions } from './persistence/data-source.ts';
import { migrate } from './persistence/migrate.ts';
import { EnvelopePipe } from './platform/envelope-pipe.ts';
import { localOnly } from './platform/guard.ts';
import { HealthController } from './platform/health.controller.ts';
import { jsonBody } from './platform/json-body.ts';
import { IdleConnectionCloser } from './platform/idle-connection-closer.ts';
import { FileLogger, LogFile } from './platform/log-file.ts';
import { ProblemFilter } from './platform/problem.ts';
import { type ServerSettings, settingsToken } from './platform/settings.ts';
import { timeLimit } from './platform/time-limit.ts';
import { RevisionsController } from './revisions/revisions.controller.ts';
import { RevisionsService } from './revisions/revisions.service.ts';
import { ShowsController } from './shows/shows.controller.ts';
import { ShowsService } from './shows/shows.service.ts';
import { TicksController } from './ticks/ticks.controller.ts';
import { TicksService } from './ticks/ticks.service.ts';
import { TypesController } from './types/types.controller.ts';
import { TypesService } from './types/types.service.ts';

export type { ServerSettings } from './platform/settings.ts';

/** Brings the schema up to date; whose data it changes are copied first. `isStopping` is asked between two steps. */
export async function prepareDatabase(
  { database: url, backups }: ServerSettings,
  isStopping: () => boolean = () => false,
): Promise<readonly string[]> {
  return connected(url, (database) =>
    migrate(database, {
      isStopping,
      beforeUpgrade: async () => {
        if (backups !== undefined)
          await new BackupFolder(backups).write('before-upgrade', new Date(), (into) =>
            writeTables(database.createQueryRunner(), new BackupWriter(into), new Date()),
          );
      },
    }),
  );
}

/** Serves over a database that `prepareDatabase` has brought up to date. */
export async function startServer(settings: ServerSettings): Promise<{ app: INestApplication; url: string }> {
  @Module({
    imports: [TypeOrmModule.forRoot({ ...databaseOptions(settings.database), retryAttempts: 0 })],
    controllers: [
      ShowsController,
      TicksController,
      RevisionsController,
      TypesController,
      BackupsController,
      HealthController,
    ],
    providers: [
      ShowsService,
      TicksService,
      RevisionsService,
      TypesService,
      BackupsService,
      IdleConnectionCloser,
      { provide: settingsToken, useValue: settings },
    ],
  })
  class AppModule {}

  const app = await NestFactory.create<NestExpressApplication>(AppModule, {
    logger: new FileLogger(settings.log === undefined ? null : new LogFile(settings.log)),
    bodyParser: false,
  });
  let port = settings.port;
  app.use(
    helmet({
      contentSecurityPolicy: {
        directives: {
          'default-src': ["'self'"],
          'style-src': ["'self'", "'unsafe-inline'"],
          'worker-src': ["'self'"],
          'font-src': ["'self'", 'data:'],
          'upgrade-insecure-requests': null,
        },
      },
      hsts: false,
    }),
  );
  app.use(localOnly(() => port));
  app.use(timeLimit);
  app.use(jsonBody);
  app.useGlobalPipes(new EnvelopePipe());
  app.useGlobalFilters(new ProblemFilter());
  const document = SwaggerModule.createDocument(app, new DocumentBuilder().setTitle('Yunta').setVersion('1').build());
  SwaggerModule.setup('api/docs', app, document, { jsonDocumentUrl: 'api/openapi.json', swaggerUiEnabled: false });
  if (settings.web && existsSync(settings.web)) servePage(app, settings.web);
  app.enableShutdownHooks();
  await app.listen(port, '127.0.0.1');
  const address = app.getHttpServer().address() as { port: number };
  port = address.port;
  const shows = app.get(ShowsService);
  if (settings.demoWhenNew && (await shows.isEmpty())) await shows.createDemo();
  const logger = new Logger('server');
  void app
    .get(BackupsService)
    .daily()
    .catch((reason: unknown) => logger.error(`the daily copy failed: ${String(reason)}`));
  logger.log(`listens on ${port}`);
  return { app, url: `http://127.0.0.1:${port}` };
}

function servePage(app: NestExpressApplication, folder: string): void {
  // The service worker keeps the rest; it must itself be looked for anew each time.
  app.use(
    express.static(folder, {
      index: false,
      setHeaders: (response, file) =>
        void response.setHeader(
          'Cache-Control',
          path.basename(file) === 'service-worker.js' ? 'no-cache' : 'public, max-age=3600',
        ),
    }),
  );
  const page = path.join(folder, 'index.html');
  app.use((request: express.Request, response: express.Response, next: express.NextFunction) => {
    if (
      request.method === 'GET' &&
      !request.path.startsWith('/api') &&
      request.path !== '/health' &&
      !path.extname(request.path)
    )
      response.sendFile(page);
    else next();
  });
}
