import 'reflect-metadata';
import { readdir, readFile } from 'node:fs/promises';
import { join, resolve } from 'node:path';
import { type DynamicModule, Module, ValidationPipe } from '@nestjs/common';
import { APP_GUARD, NestFactory } from '@nestjs/core';
import type { NestExpressApplication } from '@nestjs/platform-express';
import { DocumentBuilder, SwaggerModule } from '@nestjs/swagger';
import compression from 'compression';
import express, { type NextFunction, type Request, type Response } from 'express';
import helmet from 'helmet';
import { pinoHttp } from 'pino-http';
import { ThrottlerGuard, ThrottlerModule } from '@nestjs/throttler';
import { BackupsModule } from './backups/backups.module.js';
import { BackupsService } from './backups/backups.service.js';
import { bounded } from './bounded.js';
import { closedDoors, isLoopback, OwnPages } from './doors.js';
import { beforeOpening } from './database/before-opening.js';
import type { LibsqlDatabase } from './database/libsql-driver.js';
import { Transactions } from './database/transactions.js';
import { DatabaseModule } from './database/database.module.js';
import { DevicesModule } from './devices/devices.module.js';
import { FilesModule } from './files/files.module.js';
import { LongWorkModule } from './files/long-work.module.js';
import { HealthModule } from './health/health.module.js';
import { logger } from './logger.js';
import { PhotosModule } from './photos/photos.module.js';
import { PricesModule } from './prices/prices.module.js';
import { ProjectsModule } from './projects/projects.module.js';
import { ProjectsService } from './projects/projects.service.js';
import { RefusalFilter } from './refusals.js';

export interface AppOptions {
  readonly database: string;
  /** Folder of the built pages; without it only the API is served. */
  readonly pages?: string;
  /** A folder of project files, or one file, taken in when the database has never had a project. */
  readonly demo?: string;
  /** Names beside this machine's own under which it may be reached. */
  readonly hosts?: readonly string[];
  /** The driver of the database, where another stands in for it. */
  readonly driver?: typeof LibsqlDatabase;
}

@Module({})
class AppModule {
  static at(database: string, driver?: typeof LibsqlDatabase): DynamicModule {
    return {
      module: AppModule,
      imports: [
        DatabaseModule.at(database, driver),
        PricesModule,
        ProjectsModule,
        FilesModule,
        HealthModule,
        DevicesModule,
        PhotosModule,
        BackupsModule,
        LongWorkModule,
        ThrottlerModule.forRoot([{ ttl: 1000, limit: MOST_A_SECOND }]),
      ],
      providers: [
        { provide: APP_GUARD, useClass: OwnPages },
        { provide: APP_GUARD, useClass: ThrottlerGuard },
      ],
    };
  }
}

/** Scripts only from here, WebAssembly and workers allowed, no talk with any other host. */
const CONTENT_SECURITY = {
  defaultSrc: ["'self'"],
  scriptSrc: ["'self'", "'wasm-unsafe-eval'"],
  styleSrc: ["'self'", "'unsafe-inline'"],
  imgSrc: ["'self'", 'data:', 'blob:'],
  fontSrc: ["'self'", 'data:'],
  connectSrc: ["'self'", 'data:', 'blob:'],
  workerSrc: ["'self'", 'blob:'],
  objectSrc: ["'none'"],
  frameAncestors: ["'none'"],
  baseUri: ["'self'"],
  formAction: ["'self'"],
};

function servePages(app: NestExpressApplication, folder: string): void {
  // one that is given from where the server was started
  const pages = resolve(folder);
  const index = join(pages, 'index.html');
  app.use('/assets', express.static(join(pages, 'assets'), { immutable: true, maxAge: '1y', fallthrough: false }));
  app.use(express.static(pages, { index: false, maxAge: 0 }));
  app.use((request: Request, response: Response, next: NextFunction) => {
    if (request.method !== 'GET' || request.path.startsWith('/api')) next();
    else response.sendFile(index);
  });
}

async function demoFiles(demo: string): Promise<string[]> {
  if (demo.endsWith('.json')) return [demo];
  const names = (await readdir(demo)).filter((name) => name.endsWith('.json')).sort();
  return names.map((name) => join(demo, name));
}

/** One page asks for a few things at once; nobody asks for this many. */
const MOST_A_SECOND = 400;

/** How long a connection that is not used stays open. */
const KEEP_ALIVE_MS = 65_000;

/** Puts the server together; the caller listens and closes. */
export async function createApp(options: AppOptions): Promise<NestExpressApplication> {
  await beforeOpening(options.database);
  const app = await NestFactory.create<NestExpressApplication>(AppModule.at(options.database, options.driver), {
    logger: ['error', 'warn'],
    bodyParser: false,
    abortOnError: false,
  });
  app.setGlobalPrefix('api');
  app.use(closedDoors(options.hosts));
  app.use(pinoHttp({ logger, autoLogging: { ignore: (request) => request.url === '/api/health' } }));
  const guarded = {
    contentSecurityPolicy: { useDefaults: false, directives: CONTENT_SECURITY },
    strictTransportSecurity: false,
  };
  const here = helmet(guarded);
  // under another name, without a certificate, a browser has no use for these and says so at every page
  const elsewhere = helmet({ ...guarded, crossOriginOpenerPolicy: false, originAgentCluster: false });
  app.use((request: Request, response: Response, next: NextFunction) =>
    (isLoopback(request) ? here : elsewhere)(request, response, next),
  );
  // a stream of events must not wait in the compressor
  app.use(
    compression({
      filter: (request, response) =>
        !String(response.getHeader('Content-Type')).includes('event-stream') && compression.filter(request, response),
    }),
  );
  // each body is bounded by what it is for; a project file is the largest
  app.use('/api/projects/import', express.json({ limit: '20mb' }));
  app.use(/^\/api\/projects\/[^/]+\/(?:operations|view)$/, express.json({ limit: '4mb' }));
  app.use(/^\/api\/price-books\/[^/]+\/items$/, express.json({ limit: '4mb' }));
  app.use(express.json({ limit: '200kb' }));
  app.use(bounded());
  app.useGlobalPipes(
    new ValidationPipe({ whitelist: true, forbidNonWhitelisted: true, transform: true, stopAtFirstError: true }),
  );
  app.useGlobalFilters(new RefusalFilter());
  const description = new DocumentBuilder()
    .setTitle('Nest Plank')
    .setDescription('Projects, named operations, versions, price books, files, photos and instruments.')
    .setVersion('1')
    .build();
  SwaggerModule.setup('api/docs', app, () => SwaggerModule.createDocument(app, description), {
    jsonDocumentUrl: 'api/openapi.json',
  });
  if (options.pages) servePages(app, options.pages);
  await app.init();
  const transactions = app.get(Transactions);
  await transactions.check();
  const { demo } = options;
  // what is damaged is read where it is whole, and not written to
  const whole = transactions.trouble() !== 'damaged';
  if (whole && demo !== undefined)
    await app
      .get(ProjectsService)
      .takeInDemo(async () => Promise.all((await demoFiles(demo)).map((file) => readFile(file, 'utf8'))));
  if (whole) {
    await app.get(ProjectsService).emptyBin(new Date());
    await app.get(BackupsService).daily();
  }
  // a page that rests for a while asks again on the connection it has, which must not be closing just then
  const server = app.getHttpServer();
  server.keepAliveTimeout = KEEP_ALIVE_MS;
  server.headersTimeout = KEEP_ALIVE_MS + 1000;
  return app;
}
