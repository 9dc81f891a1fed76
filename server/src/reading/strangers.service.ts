import { processScript } from './processScript.js';
import type { OnModuleDestroy } from '@nestjs/common';
import { Injectable } from '@nestjs/common';
import type { DocumentKind } from '../documents/documentKind.js';
import { Problem } from '../http/problem.js';
import type { TurnOptions } from './fairTurns.js';
import { LimitError } from './limitedProcess.js';
import { ReaderPool } from './readerPool.js';
import type { Part, PartWanted, StrangerAnswer, StrangerTask } from './strangerTasks.js';

const SCRIPT = processScript('strangers');
type Pool = ReaderPool<StrangerTask, StrangerAnswer, PartWanted>;
/** How many files, and how many pages, are read at the same time. */
const READERS = 3;

/** Reads strangers' files and pages beside the server, within limits of time and memory. */
@Injectable()
export class StrangersService implements OnModuleDestroy {
  /** Pages wait for the network; documents do not, and do not wait for pages. */
  private readonly pages: Pool = new ReaderPool(SCRIPT, { timeMs: 45_000, memoryMb: 900 }, READERS);
  private readonly documents: Pool = new ReaderPool(SCRIPT, { timeMs: 20_000, memoryMb: 900 }, READERS);

  onModuleDestroy(): void {
    this.pages.stop();
    this.documents.stop();
  }

  /** A copy of a web page, of HTML or a web archive; `fetchPart` gets what it is made of. Throws Problem. */
  page(
    text: string,
    url: string,
    fetchPart: (url: string) => Promise<Part>,
    turn: TurnOptions,
  ): Promise<Extract<StrangerAnswer, { kind: 'page' }>> {
    const onNote = ({ url: wanted }: PartWanted) => fetchPart(wanted).catch(() => undefined); // A page without it is still a page.
    return answered<'page'>(this.pages.run({ kind: 'page', text, url }, { ...turn, onNote }));
  }

  /** What a file is. Throws Problem where it is nothing that can be taken in. */
  async kindOf(path: string, name: string, turn: TurnOptions): Promise<DocumentKind> {
    return (await answered<'document'>(this.documents.run({ kind: 'document', path, name }, turn))).type;
  }

  /** What the speaker wrote beside each slide; empty where that cannot be read. */
  async notes(path: string, type: DocumentKind, turn: TurnOptions): Promise<string[]> {
    try {
      return (await answered<'notes'>(this.documents.run({ kind: 'notes', path, type }, turn))).notes;
    } catch {
      // Slides without their notes are better than no slides.
      return [];
    }
  }

  /** A text as a web page. Throws Problem. */
  async textAsHtml(path: string, type: 'md' | 'txt', turn: TurnOptions): Promise<string> {
    return (await answered<'text'>(this.documents.run({ kind: 'text', path, type }, turn))).html;
  }
}

async function answered<Kind extends StrangerAnswer['kind']>(
  running: Promise<StrangerAnswer>,
): Promise<Extract<StrangerAnswer, { kind: Kind }>> {
  const answer = await running.catch((error: unknown) => {
    if (error instanceof LimitError) throw tooMuch();
    throw typeof error === 'string' ? cannotBeRead() : error;
  });
  if (answer.kind === 'refused') throw new Problem(answer.status, answer.code, answer.message, answer.values);
  return answer as Extract<StrangerAnswer, { kind: Kind }>;
}

function tooMuch(): Problem {
  return new Problem(
    422,
    'reading-too-slow',
    'This takes too long to read, or unfolds to too much. Please save it as PDF and bring that in.',
  );
}

function cannotBeRead(): Problem {
  return new Problem(
    422,
    'cannot-be-opened',
    'This cannot be read. Please save it as PDF and bring that in.',
  );
}
