import { Injectable } from '@nestjs/common';
import { InjectRepository } from '@nestjs/typeorm';
import type {
  ShelfChangeRequest,
  ShelfContent,
  ShelfKeepRequest,
  ShelfQuestion,
  ShelfThing,
} from '@doodla/core';
import { hasWords, searchWords, SHELF_TITLE_LENGTH, typedIn } from '@doodla/core';
import { randomUUID } from 'node:crypto';
import type { FindOptionsWhere } from 'typeorm';
import { In, IsNull, Not, Raw, Repository } from 'typeorm';
import { notFound, Problem } from '../http/problem.js';
import { Teacher } from '../people/teacher.entity.js';
import { packJson, unpackJson } from '../storage/packedJson.js';
import { Database } from '../storage/database.js';
import { StoredThing, ThingMaterial, ThingPicture } from './shelfThing.entity.js';
import { ThingContentService } from './thingContent.service.js';

const MOST_THINGS = 1000;
/** Most things that are told at once, the newest. */
const MOST_LISTED = 500;
/** Bytes of a thing's marks as they are stored. */
const MOST_BYTES = 4_000_000;
const WORDS_LENGTH = 4000;

/** The things on the shelves of the teachers, and on the school's. */
@Injectable()
export class ThingsService {
  constructor(
    @InjectRepository(StoredThing) private readonly things: Repository<StoredThing>,
    @InjectRepository(ThingPicture) private readonly pictures: Repository<ThingPicture>,
    @InjectRepository(ThingMaterial) private readonly materials: Repository<ThingMaterial>,
    @InjectRepository(Teacher) private readonly teachers: Repository<Teacher>,
    private readonly content: ThingContentService,
    private readonly database: Database,
  ) {}

  /** A teacher's things, or those that teachers of the school share; the newest first. */
  async list(teacherId: string, { of, words }: ShelfQuestion): Promise<ShelfThing[]> {
    const where = of === 'own' ? { teacherId } : sharedWith(teacherId);
    const order = { createdAt: 'DESC' } as const;
    const rows = await this.things.find({ where: { ...where, deletedAt: IsNull() }, order });
    const wanted = searchWords(words);
    const found = rows.filter((row) => hasWords(`${row.title} ${row.folder} ${row.words}`, wanted));
    const names = await this.namesOf(found, teacherId);
    return found.slice(0, MOST_LISTED).map((row) => listed(row, names.get(row.teacherId) ?? null));
  }

  /** Puts marks or pages on a teacher's shelf. Throws Problem. */
  async keep(teacherId: string, request: ShelfKeepRequest): Promise<ShelfThing> {
    if ((await this.things.countBy({ teacherId, deletedAt: IsNull() })) >= MOST_THINGS)
      throw new Problem(409, 'shelf-full', 'Your shelf is full. Please take something off it first.');
    const { content, pictures, materials, lessonTitle } = await this.content.gather(teacherId, request);
    const { title, folder, marks } = request;
    const thing: StoredThing = {
      id: randomUUID(),
      teacherId,
      kind: marks ? 'marks' : 'pages',
      title: title === '' ? lessonTitle.slice(0, SHELF_TITLE_LENGTH) : title,
      folder,
      words: wordsOf(content),
      count: marks ? content.parts[0]!.marks.length : content.parts.length,
      shared: false,
      previewSha256: null,
      content: packJson(content),
      createdAt: Date.now(),
      deletedAt: null,
    };
    if (thing.content.length > MOST_BYTES)
      throw new Problem(
        413,
        'shelf-thing-too-large',
        'This is too much for one thing on the shelf. Please put it there in parts.',
      );
    const thingId = thing.id;
    await this.database.together(
      this.things.createQueryBuilder().insert().values(thing),
      ...pictures.map((picture) =>
        this.pictures
          .createQueryBuilder()
          .insert()
          .values({ ...picture, thingId }),
      ),
      ...materials.map((materialId) =>
        this.materials.createQueryBuilder().insert().values({ thingId, materialId }),
      ),
    );
    return listed(thing, null);
  }

  /** What a teacher may use: their own, and what is shared. Throws Problem. */
  async use(teacherId: string, id: string): Promise<{ id: string; content: ShelfContent }> {
    const found = await this.things.findOne({
      where: visibleTo(teacherId, id),
      select: { id: true, content: true },
    });
    if (!found) throw notFound('This thing');
    return { id, content: unpackJson<ShelfContent>(found.content) };
  }

  /** The picture of a thing, by its hash. Throws Problem where there is none. */
  async previewOf(teacherId: string, id: string): Promise<string> {
    const thing = await this.things.findOneBy(visibleTo(teacherId, id));
    if (!thing?.previewSha256) throw notFound('This thing');
    return thing.previewSha256;
  }

  /** Throws Problem where it is not the teacher's. */
  async own(teacherId: string, id: string): Promise<void> {
    if (!(await this.things.existsBy({ id, teacherId, deletedAt: IsNull() }))) throw notFound('This thing');
  }

  async setPreview(id: string, previewSha256: string): Promise<void> {
    await this.things.update({ id }, { previewSha256 });
  }

  /** Another name, another folder, shared or not. Throws Problem. */
  async change(teacherId: string, id: string, change: ShelfChangeRequest): Promise<void> {
    await this.own(teacherId, id);
    const { title, folder, shared } = change;
    const set = {
      ...(title !== undefined && { title }),
      ...(folder !== undefined && { folder }),
      ...(shared !== undefined && { shared }),
    };
    if (Object.keys(set).length > 0) await this.things.update({ id }, set);
  }

  /** Takes a thing off the shelf; for 30 days it can be put back. Throws Problem. */
  async remove(teacherId: string, id: string): Promise<void> {
    await this.own(teacherId, id);
    await this.things.update({ id }, { deletedAt: Date.now() });
  }

  /** Throws Problem where there is nothing to put back. */
  async restore(teacherId: string, id: string): Promise<void> {
    const { affected } = await this.things.update(
      { id, teacherId, deletedAt: Not(IsNull()) },
      { deletedAt: null },
    );
    if (!affected) throw notFound('This thing');
  }

  private async namesOf(things: readonly StoredThing[], me: string): Promise<Map<string, string>> {
    const ids = new Set(things.map(({ teacherId }) => teacherId).filter((id) => id !== me));
    if (ids.size === 0) return new Map();
    const others = await this.teachers.find({
      where: { id: In([...ids]) },
      select: { id: true, name: true },
    });
    return new Map(others.map(({ id, name }) => [id, name]));
  }
}

const visibleTo = (teacherId: string, id: string): FindOptionsWhere<StoredThing>[] => [
  { id, deletedAt: IsNull(), teacherId },
  { id, deletedAt: IsNull(), ...sharedWith(teacherId) },
];

/** What teachers of the same school share. */
const sharedWith = (teacherId: string): FindOptionsWhere<StoredThing> => ({
  shared: true,
  teacherId: Raw(
    (column) =>
      `${column} IN (SELECT id FROM teacher WHERE school_id = (SELECT school_id FROM teacher WHERE id = :me))`,
    { me: teacherId },
  ),
});

function listed(thing: StoredThing, owner: string | null): ShelfThing {
  const { id, kind, title, folder, count, shared, createdAt } = thing;
  return {
    id,
    kind,
    title,
    folder,
    count,
    shared,
    owner,
    hasPicture: thing.previewSha256 !== null,
    createdAt,
  };
}

/** What is typed on it and what its pages are called. */
function wordsOf({ parts }: ShelfContent): string {
  const words = parts.flatMap(({ page, marks }) => [page?.title ?? '', ...marks.map(typedIn)]);
  return words
    .filter((part) => part !== '')
    .join(' ')
    .slice(0, WORDS_LENGTH);
}
