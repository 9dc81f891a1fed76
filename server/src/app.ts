import type { DynamicModule } from '@nestjs/common';
import { Module, ValidationPipe } from '@nestjs/common';
import { NestFactory } from '@nestjs/core';
import type { NestExpressApplication } from '@nestjs/platform-express';
import compression from 'compression';
import type { AddressInfo } from 'node:net';
import { once } from 'node:events';
import cookieParser from 'cookie-parser';
import { HealthController } from './http/health.controller.js';
import { letCompanionAsk } from './http/companionOrigin.js';
import { refuseForeign } from './http/origin.js';
import { ProblemFilter } from './http/problem.filter.js';
import { nameRequests, RequestLogger } from './http/requestIds.js';
import { securityHeaders } from './http/security.js';
import { serveWebApp } from './http/webApp.js';
import type { Settings } from './settings/settings.js';
import { SQLITE } from './settings/settings.js';
import { SettingsModule } from './settings/settings.module.js';
import { LiveAdapter } from './live/liveAdapter.js';
import { Leases } from './processes/leases.js';
import { PassingOn, wasPassedOn } from './processes/passingOn.js';
import { checkRedis } from './processes/redis.js';
import { SharedLeases } from './processes/sharedLeases.js';
import { passByCode } from './sittings/passByCode.js';
import { DataFolder } from './storage/dataFolder.js';
import { FileStore } from './storage/fileStore.js';
import { Database } from './storage/database.js';
import { DatabaseHold } from './storage/databaseHold.js';
import { Holds } from './storage/holds.js';
import { StorageModule } from './storage/storage.module.js';
import { MODULES, TABLES } from './subjects.js';
import { serveRoot, tlsOf } from './tls/tlsFiles.js';

@Module({})
class AppModule {
  static with(settings: Settings): DynamicModule {
    return {
      module: AppModule,
      imports: [SettingsModule.with(settings), StorageModule.with(TABLES), ...MODULES],
      controllers: [HealthController],
    };
  }
}

/** The whole server, not yet listening. `webFolder` holds the built web application. */
export async function createApp(settings: Settings, webFolder?: string): Promise<NestExpressApplication> {
  const folder = new DataFolder(settings.data);
  const isSqlite = settings.database === SQLITE;
  folder.open(isSqlite);
  const isShared = settings.redis !== undefined;
  if (settings.redis !== undefined) await checkRedis(settings.redis);
  const hold = isSqlite ? undefined : await DatabaseHold.take(settings.database, isShared);
  const tls = tlsOf(settings);
  const app = await NestFactory.create<NestExpressApplication>(AppModule.with(settings), {
    logger: new RequestLogger({ logLevels: ['error', 'warn'], json: settings.logJson }),
    abortOnError: false,
    ...(tls && { httpsOptions: tls }),
  });
  app.set('trust proxy', settings.trustProxy);
  app.disable('x-powered-by');
  app.use(nameRequests((request) => settings.trustProxy > 0 || wasPassedOn(request)));
  app.use(securityHeaders(tls !== undefined), letCompanionAsk, refuseForeign(settings));
  app.use(compression(), cookieParser());
  serveRoot(app, settings);
  app.useGlobalPipes(new ValidationPipe({ transform: true, whitelist: true }));
  app.useGlobalFilters(new ProblemFilter());
  const leases = app.get(Leases);
  const passingOn = leases instanceof SharedLeases ? new PassingOn(leases, settings) : undefined;
  app.useWebSocketAdapter(new LiveAdapter(app, settings, passingOn));
  if (passingOn) passByCode(app, passingOn);
  else app.enableShutdownHooks();
  if (webFolder) serveWebApp(app, webFolder);
  app.get(Holds).add(folder, ...(hold ? [hold] : []));
  await folder.settle(app.get(Database));
  await app.get(FileStore).prepare();
  await hold?.hasStarted();
  return app;
}

/** Begins to serve; where there are several processes, the others find this one from now on. Returns the port. */
export async function serve(app: NestExpressApplication, settings: Settings): Promise<number> {
  await app.init();
  const server = app.getHttpServer();
  // Not by Nest's own way, which logs a refusal before it is told as a sentence.
  server.listen(settings.port, settings.host);
  await once(server, 'listening');
  const { port } = server.address() as AddressInfo;
  const leases = app.get(Leases);
  const scheme = tlsOf(settings) ? 'https' : 'http';
  if (leases instanceof SharedLeases) await leases.begin(settings.address ?? `${scheme}://127.0.0.1:${port}`);
  return port;
}
