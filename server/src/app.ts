import type { DynamicModule } from '@nestjs/common';
import { Module, ValidationPipe } from '@nestjs/common';
import { NestFactory } from '@nestjs/core';
import type { NestExpressApplication } from '@nestjs/platform-express';
import { IoAdapter } from '@nestjs/platform-socket.io';
import compression from 'compression';
import cookieParser from 'cookie-parser';
import { mkdirSync, readFileSync } from 'node:fs';
import { ProblemFilter } from './http/problem.filter.js';
import { securityHeaders } from './http/security.js';
import { serveWebApp } from './http/webApp.js';
import { PeopleModule } from './people/people.module.js';
import type { Settings } from './settings/settings.js';
import { SettingsModule } from './settings/settings.module.js';
import { FileStore } from './storage/fileStore.js';
import { StorageModule } from './storage/storage.module.js';
import { TeachingModule } from './teaching.module.js';

@Module({})
class AppModule {
  static with(settings: Settings): DynamicModule {
    return {
      module: AppModule,
      imports: [SettingsModule.with(settings), StorageModule, PeopleModule, TeachingModule],
    };
  }
}

/** The whole server, not yet listening. `webFolder` holds the built web application. */
export async function createApp(settings: Settings, webFolder?: string): Promise<NestExpressApplication> {
  mkdirSync(settings.data, { recursive: true });
  const app = await NestFactory.create<NestExpressApplication>(AppModule.with(settings), {
    logger: ['error', 'warn'],
    ...(settings.tlsCert &&
      settings.tlsKey && {
        httpsOptions: { cert: readFileSync(settings.tlsCert), key: readFileSync(settings.tlsKey) },
      }),
  });
  app.set('trust proxy', settings.trustProxy);
  app.disable('x-powered-by');
  app.use(securityHeaders(settings.https), compression(), cookieParser());
  app.useGlobalPipes(new ValidationPipe({ transform: true, whitelist: true }));
  app.useGlobalFilters(new ProblemFilter());
  app.useWebSocketAdapter(new IoAdapter(app));
  app.enableShutdownHooks();
  if (webFolder) serveWebApp(app, webFolder);
  await app.get(FileStore).prepare();
  return app;
}
