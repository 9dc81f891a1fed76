import { readFile } from 'node:fs/promises';
import { parentPort } from 'node:worker_threads';
import { documentKind } from '../documents/documentKind.js';
import { speakerNotes } from '../documents/speakerNotes.js';
import { textAsHtml } from '../documents/textAsHtml.js';
import { Problem } from '../http/problem.js';
import { isArchive, openArchive } from '../webpages/mhtml.js';
import { copyPage, notAPage } from '../webpages/pageCopy.js';
import type { PageCopy } from '../webpages/pageCopy.js';
import type { PartSource } from '../webpages/pageCopy.js';
import { standBehind } from './behind.js';
import type { FromWorker } from './limitedWorker.js';
import type { Part, PartWanted, StrangerAnswer, StrangerTask } from './strangerTasks.js';

const port = parentPort!;
/** Parts come back in the order in which they were asked for. */
const awaited: ((part: Part) => void)[] = [];

standBehind();

port.on('message', (message: StrangerTask | { reply: Part }) => {
  if ('reply' in message) return awaited.shift()?.(message.reply);
  awaited.length = 0;
  run(message).then(
    (done) => say({ done }),
    (error: unknown) => say(error instanceof Problem ? { done: refusal(error) } : { failed: String(error) }),
  );
});

function say(message: FromWorker<StrangerAnswer, PartWanted>): void {
  port.postMessage(message);
}

async function run(task: StrangerTask): Promise<StrangerAnswer> {
  switch (task.kind) {
    case 'page':
      return { kind: 'page', ...(await page(task.text, task.url)) };
    case 'document':
      return { kind: 'document', type: documentKind(await readFile(task.path), task.name) };
    case 'notes':
      return { kind: 'notes', notes: speakerNotes(await readFile(task.path), task.type) };
    case 'text':
      return { kind: 'text', html: await textAsHtml(task.path, task.type) };
  }
}

async function page(text: string, url: string): Promise<PageCopy> {
  if (!isArchive(text)) return copyPage(text, url, fromNetwork);
  const archive = openArchive(text);
  if (!archive) throw notAPage();
  return copyPage(archive.html, archive.url, archive.source);
}

const fromNetwork: PartSource = async (url) => {
  const part = await new Promise<Part>((resolve) => {
    awaited.push(resolve);
    say({ note: { url } });
  });
  return part && { type: part.type, bytes: Buffer.from(part.bytes) };
};

function refusal(problem: Problem): StrangerAnswer {
  return { kind: 'refused', status: problem.getStatus(), code: problem.code, message: problem.message };
}
