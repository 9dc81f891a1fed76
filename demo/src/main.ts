import 'reflect-metadata';
import { createApp, serve } from '@doodla/server/app';
import { readSettings, SettingsError } from '@doodla/server/settings/settings';
import { fileURLToPath } from 'node:url';
import { DEMO_CODE, DEMO_TEACHER, seedDemo } from './seed.js';

const WEB_FOLDER = fileURLToPath(new URL('../../web/dist/', import.meta.url));

try {
  const settings = readSettings({ DOODLA_DATA: 'data-demo', ...process.env, DOODLA_DEMO: '1' });
  const app = await createApp(settings, WEB_FOLDER);
  await seedDemo(app);
  await serve(app, settings);
  const address = settings.publicUrl ?? `http://localhost:${settings.port}`;
  console.log(`
Doodla's demo is ready.
  Teacher:   ${address}  (one click signs in; or ${DEMO_TEACHER.email} / ${DEMO_TEACHER.password})
  Students:  ${address}/join  with the code ${DEMO_CODE}
Stop it with Ctrl+C. What you do is kept in ${settings.data}; delete that folder to start over.
`);
} catch (error) {
  console.error(error instanceof SettingsError ? error.message : error);
  process.exit(1);
}
