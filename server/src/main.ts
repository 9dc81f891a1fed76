import 'reflect-metadata';
import { createApp } from './app.js';
import { readSettings, SettingsError } from './settings/settings.js';

const WEB_FOLDER = new URL('../../web/dist/', import.meta.url).pathname;

try {
  const settings = readSettings(process.env);
  const app = await createApp(settings, WEB_FOLDER);
  await app.listen(settings.port, settings.host);
  const scheme = settings.https ? 'https' : 'http';
  console.log(`Doodla listens on ${settings.publicUrl ?? `${scheme}://localhost:${settings.port}`}`);
} catch (error) {
  console.error(error instanceof SettingsError ? error.message : error);
  process.exit(1);
}
