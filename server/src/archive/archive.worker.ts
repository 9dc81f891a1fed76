import { UnreadableArchive } from '@doodla/core/archive';
import { serveTasks } from '../reading/serveTasks.js';
import type { ArchiveAnswer, ArchiveFailure, ArchiveNote, ArchiveTask } from './archiveTask.js';
import { pack } from './pack.js';
import { TooLarge, unpack } from './unpack.js';

serveTasks<ArchiveTask, ArchiveNote>({ run, failureOf });

async function run(task: ArchiveTask, ask: (note: ArchiveNote) => Promise<unknown>): Promise<ArchiveAnswer> {
  if (task.kind === 'unpack') return { kind: 'unpacked', head: await unpack(task, ask) };
  await pack(task, ask);
  return { kind: 'packed' };
}

function failureOf(error: unknown): ArchiveFailure | string {
  if (error instanceof TooLarge) return 'too-large';
  return error instanceof UnreadableArchive ? error.fault : String(error);
}
