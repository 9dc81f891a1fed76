import 'reflect-metadata';
import { readSettings, SettingsError, SQLITE } from '../settings/settings.js';
import { TABLES } from '../subjects.js';
import { CopyError, copyToPostgres } from './copyToPostgres.js';
import { StartError } from './dataFolder.js';

try {
  const { data, database } = readSettings(process.env);
  if (database === SQLITE)
    throw new CopyError(
      'Set DOODLA_DATABASE to the address of an empty database, postgres://…, and try again.',
    );
  const tables = await copyToPostgres(data, database, TABLES);
  for (const { table, rows, digest } of tables) console.log(`${table}: ${rows} rows, ${digest}`);
  console.log(
    'Both databases have the same rows. Start Doodla with the same DOODLA_DATABASE and DOODLA_DATA.',
  );
} catch (error) {
  const isSentence = [SettingsError, CopyError, StartError].some((known) => error instanceof known);
  console.error(isSentence ? (error as Error).message : `Nothing was copied: ${(error as Error).message}`);
  process.exit(1);
}
