import type { OnModuleDestroy } from '@nestjs/common';
import { Injectable } from '@nestjs/common';
import type { Change, Mark, Page, UndoEntry } from '@doodla/core';
import { byOrder, MAX_CHANGES, orderedPages, ordersAt } from '@doodla/core';
import { randomUUID } from 'node:crypto';
import { rm, stat } from 'node:fs/promises';
import { join } from 'node:path';
import { Problem } from '../http/problem.js';
import type { PagePlace } from '../lessons/lessons.service.js';
import { LessonsService, logOf } from '../lessons/lessons.service.js';
import { LogsService } from '../live/logs.service.js';
import type { Material } from '../materials/material.entity.js';
import { MaterialsService } from '../materials/materials.service.js';
import { processScript } from '../reading/processScript.js';
import { LimitError } from '../reading/limitedProcess.js';
import { ReaderPool } from '../reading/readerPool.js';
import { FileStore } from '../storage/fileStore.js';
import type { AnnotatedPage, AnnotationsTask } from './annotationsTask.js';

const SCRIPT = processScript('annotations');
const LIMITS = { timeMs: 60_000, memoryMb: 1200 };
const READERS = 2;

/** Makes what others have written on a document marks of a lesson. */
@Injectable()
export class AnnotationsService implements OnModuleDestroy {
  private readonly readers = new ReaderPool<AnnotationsTask, AnnotatedPage[]>(SCRIPT, LIMITS, READERS);

  constructor(
    private readonly logs: LogsService,
    private readonly files: FileStore,
    private readonly materials: MaterialsService,
    private readonly lessons: LessonsService,
  ) {}

  onModuleDestroy(): void {
    this.readers.stop();
  }

  /**
   * Makes the annotations of a document marks on its pages, which show the document without them from then on; one step
   * for undo. Returns that, and how many marks there are. Throws Problem with what to do.
   */
  async toMarks(
    place: PagePlace,
    teacherId: string,
    material: Material,
  ): Promise<{ marks: number; step: UndoEntry }> {
    const out = join(this.files.incoming, randomUUID());
    try {
      const task = { path: await this.files.local(material.sha256), out };
      const annotated = await this.readers.run(task, { owner: teacherId }).catch(throwProblem);
      if (annotated.length === 0) throw noneThere();
      const bare = await this.materials.note({
        ...material,
        id: randomUUID(),
        bytes: (await stat(out)).size,
        sha256: await this.files.takeMade(out),
        createdAt: Date.now(),
      });
      await this.lessons.link(place, bare.id);
      const changes = await this.changes(place, teacherId, {
        material: material.id,
        bare: bare.id,
        annotated,
      });
      if (changes.length > MAX_CHANGES) throw tooMany();
      const id = randomUUID();
      await this.logs.append(logOf(place), teacherId, { id, changes });
      const pages = changes.flatMap((change) => (change.do === 'patchPage' ? [change.page] : []));
      return { marks: changes.length - pages.length, step: { id, pages, ofPages: true } };
    } finally {
      await rm(out, { force: true });
    }
  }

  private async changes(
    place: PagePlace,
    author: string,
    { material, bare, annotated }: { material: string; bare: string; annotated: AnnotatedPage[] },
  ): Promise<Change[]> {
    const marksOf = new Map(annotated.map(({ index, marks }) => [index, marks]));
    const log = await this.logs.open(logOf(place));
    const changes: Change[] = [];
    for (const page of orderedPages(log.pages.values())) {
      const { surface } = page;
      if (surface.kind !== 'pdf' || surface.material !== material) continue;
      const set = { surface: { ...surface, material: bare } };
      changes.push({ do: 'patchPage', page: page.id, set });
      const marks = marksOf.get(surface.index);
      if (!marks) continue;
      const above = [...(await log.marksOn(page.id)).values()].sort(byOrder);
      changes.push(...addedUnder(above, page, author, marks));
    }
    return changes;
  }
}

/** Marks that go under what is on a page already. */
function addedUnder(
  above: readonly Mark[],
  { id: page }: Page,
  author: string,
  marks: readonly Mark[],
): Change[] {
  const orders = ordersAt(above, 0, marks.length);
  const now = Date.now();
  return marks.map((mark, i) => ({
    do: 'add',
    mark: { ...mark, id: randomUUID(), page, author, order: orders[i]!, createdAt: mark.createdAt || now },
  }));
}

function throwProblem(error: unknown): never {
  if (!(error instanceof LimitError) && typeof error !== 'string') throw error;
  throw new Problem(
    422,
    'annotations-damaged',
    'The annotations of this document cannot be read. They stay on the page as they are; write over them.',
  );
}

function noneThere(): Problem {
  return new Problem(
    422,
    'no-annotations',
    'Nothing on this document can become marks: there are no drawings, highlights, typed words or notes of others on it.',
  );
}

function tooMany(): Problem {
  return new Problem(
    422,
    'too-many-annotations',
    'There are more annotations on this document than can become marks at once. They stay as they are.',
  );
}
