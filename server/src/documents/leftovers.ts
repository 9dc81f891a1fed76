import { createHash } from 'node:crypto';
import { readdir, readFile, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join, resolve } from 'node:path';

/** How the temporary folders of the server on this data folder begin. */
export function leftoverPrefix(dataFolder: string): string {
  const id = createHash('sha256').update(resolve(dataFolder)).digest('hex').slice(0, 12);
  return `doodla-office-${id}-`;
}

/**
 * Ends conversions that a server left running when it was killed, and removes their folders. To be called
 * while nobody else serves the same data folder.
 */
export async function endLeftovers(prefix: string): Promise<void> {
  for (const pid of await processesNaming(prefix)) {
    try {
      process.kill(pid, 'SIGKILL');
    } catch {
      // It has ended by itself, or is another account's that had the same name in a file.
    }
  }
  for (const name of await readdir(tmpdir()))
    if (name.startsWith(prefix)) await rm(join(tmpdir(), name), { recursive: true, force: true });
}

/** Linux keeps what a process was started with in a file (proc(5)); elsewhere none is found. */
async function processesNaming(text: string): Promise<number[]> {
  const ids = await readdir('/proc').catch(() => [] as string[]); // No such folder on this system.
  const found: number[] = [];
  for (const id of ids.filter((name) => /^\d+$/.test(name))) {
    const command = await readFile(`/proc/${id}/cmdline`, 'utf8').catch(() => ''); // It has ended meanwhile.
    if (command.includes(text) && Number(id) !== process.pid) found.push(Number(id));
  }
  return found;
}
