import { readFile } from 'node:fs/promises';
import { documentKind } from '../documents/documentKind.js';
import { speakerNotes } from '../documents/speakerNotes.js';
import { textAsHtml } from '../documents/textAsHtml.js';
import { Problem } from '../http/problem.js';
import { isArchive, openArchive } from '../webpages/mhtml.js';
import { copyPage, notAPage } from '../webpages/pageCopy.js';
import type { PageCopy, PartSource } from '../webpages/pageCopy.js';
import { serveTasks } from './serveTasks.js';
import type { Part, PartWanted, StrangerAnswer, StrangerTask } from './strangerTasks.js';

type Ask = (wanted: PartWanted) => Promise<unknown>;

serveTasks<StrangerTask, PartWanted>({ run: answer, failureOf: String });

async function answer(task: StrangerTask, ask: Ask): Promise<StrangerAnswer> {
  try {
    return await read(task, ask);
  } catch (error) {
    if (error instanceof Problem) return refusal(error);
    throw error;
  }
}

async function read(task: StrangerTask, ask: Ask): Promise<StrangerAnswer> {
  switch (task.kind) {
    case 'page':
      return { kind: 'page', ...(await page(task.text, task.url, fromNetwork(ask))) };
    case 'document':
      return { kind: 'document', type: documentKind(await readFile(task.path), task.name) };
    case 'notes':
      return { kind: 'notes', notes: speakerNotes(await readFile(task.path), task.type) };
    case 'text':
      return { kind: 'text', html: await textAsHtml(task.path, task.type) };
  }
}

async function page(text: string, url: string, network: PartSource): Promise<PageCopy> {
  if (!isArchive(text)) return copyPage(text, url, network);
  const archive = openArchive(text);
  if (!archive) throw notAPage();
  return copyPage(archive.html, archive.url, archive.source);
}

const fromNetwork =
  (ask: Ask): PartSource =>
  async (url) => {
    const part = (await ask({ url })) as Part;
    return part && { type: part.type, bytes: Buffer.from(part.bytes) };
  };

function refusal(problem: Problem): StrangerAnswer {
  return {
    kind: 'refused',
    status: problem.getStatus(),
    code: problem.code,
    message: problem.message,
    ...(problem.values && { values: problem.values }),
  };
}
