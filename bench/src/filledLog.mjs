// A log in which a class has written, made without the network and without waiting for the disk.
import { createApp } from '@doodla/server/app';
import { LogsService } from '@doodla/server/live/logs.service';
import { readSettings } from '@doodla/server/settings/settings';
import { TurnsService } from '@doodla/server/sittings/turns.service';
import { LogDatabase } from '@doodla/server/storage/logDatabase';
import { aStroke, handPoints } from './school.mjs';

/**
 * Writes `count` strokes as a class would, one operation each, into the log of a class whose server is stopped. `at` says when
 * each was drawn, and `turns` when the class came to which page.
 */
export async function fillLog(data, { log, author }, { count, points, pageOf, at, turns = [] }) {
  const app = await createApp(readSettings({ DOODLA_PORT: '0', DOODLA_DATA: data }));
  await app.init();
  app.get(LogDatabase).database.pragma('synchronous = OFF');
  const logs = app.get(LogsService);
  for (let i = 0; i < count; i++) {
    const mark = aStroke(pageOf(i), author, handPoints(points, i));
    const operation = { id: `fill-${i}`, changes: [{ do: 'add', mark }] };
    await logs.append(log.id, author, operation, at ? { at: at(i) } : {});
  }
  for (const turn of turns) await app.get(TurnsService).note(log.id, turn.page, turn.at);
  await app.close();
}
