import 'reflect-metadata';
import { resolve } from 'node:path';
import { readSettings, SettingsError, SQLITE } from '../settings/settings.js';
import { BackupError, backUp, restore } from './backup.js';

const USAGE = `npm run backup -- FOLDER            copies all of Doodla's data into a new folder within FOLDER; the server may run
npm run restore -- FOLDER/doodla-…  puts such a copy in the place of the data folder; the server has to be stopped`;

/** Tells of every hundredth file and of the last. */
function tell(done: number, total: number): void {
  if (done % 100 === 0 || done === total) console.log(`${done} of ${total} files`);
}

async function main([what, folder]: readonly string[]): Promise<void> {
  if (folder === undefined || (what !== 'backup' && what !== 'restore')) throw new BackupError(USAGE);
  const { data, database } = readSettings(process.env);
  if (database !== SQLITE)
    throw new BackupError(
      'The database is in PostgreSQL: copy it by its own tools (pg_dump), and then the data folder, as the README says.',
    );
  if (what === 'backup') {
    const { path, files, missing } = await backUp(data, resolve(folder), tell);
    console.log(`The backup is in ${path}: the database and ${files} files.`);
    if (missing.length > 0) {
      console.error(
        `${missing.length} files that the database names are missing or damaged in ${data}, so they are not in the backup either: ${missing.join(', ')}`,
      );
      process.exitCode = 2;
    }
    return;
  }
  const { files, before } = await restore(resolve(folder), data, tell);
  console.log(`The data folder ${data} is as it was in the backup: the database and ${files} files.`);
  if (before !== undefined) console.log(`What was there is in ${before}; delete it when all is well.`);
}

main(process.argv.slice(2)).catch((error: unknown) => {
  if (!(error instanceof BackupError || error instanceof SettingsError)) console.error(error);
  else console.error(error.message);
  process.exit(1);
});
