import type { ProblemReply } from '@doodla/core';
import { Injectable } from '@nestjs/common';
import { InjectRepository } from '@nestjs/typeorm';
import { randomUUID } from 'node:crypto';
import { open, rm } from 'node:fs/promises';
import { Repository } from 'typeorm';
import { lettersWithoutFont } from '../documents/fontCover.js';
import { OfficeConverter } from '../documents/officeConverter.js';
import { notFound, Problem } from '../http/problem.js';
import type { Upload } from '../http/upload.js';
import { StrangersService } from '../reading/strangers.service.js';
import { SchoolsService } from '../schools/schools.service.js';
import { FileStore } from '../storage/fileStore.js';
import { Material } from './material.entity.js';
import { pdfProblem } from './pdfProblem.js';
import type { PdfTaskOptions } from './pdfReader.js';
import { PdfReader } from './pdfReader.js';
import type { ReadPage } from './pdfTask.js';

export interface ReadMaterial {
  material: Material;
  pages: ReadPage[];
}

/** A document that has been taken in and is not yet on any page. */
export interface TakenMaterial extends ReadMaterial {
  /** What whoever brought it should know, in sentences. */
  remarks: ProblemReply[];
}

/** What a PDF is kept as, and which of its pages are wanted. */
interface Keeping {
  name: string;
  pages: string | null;
  options: PdfTaskOptions;
  notes?: readonly string[];
}

/** Pages of a converted document whose letters are looked at, and how many missing ones are named. */
const LOOKED_AT = 60;
const NAMED = 12;

/** Takes documents in. */
@Injectable()
export class MaterialsService {
  constructor(
    @InjectRepository(Material) private readonly materials: Repository<Material>,
    private readonly files: FileStore,
    private readonly pdfs: PdfReader,
    private readonly office: OfficeConverter,
    private readonly schools: SchoolsService,
    private readonly strangers: StrangersService,
  ) {}

  /**
   * Takes its owner's document of any kind in, as PDF, and reads those of its pages that `pages` names; all where it is
   * empty, none where it is null. Throws Problem with what to do.
   */
  async take(
    { path, name, size, sha256 }: Upload,
    pages: string | null,
    options: PdfTaskOptions,
  ): Promise<TakenMaterial> {
    if (size === 0) throw pdfProblem({ fault: 'empty' });
    const kind = await this.strangers.kindOf(path, name, options);
    const keep = { name, pages, options };
    if (kind === 'pdf') {
      const kept = await this.keepPdf(path, () => this.files.take({ path, sha256 }), keep);
      return { ...kept, remarks: [] };
    }
    const pdf = await this.office.toPdf(path, kind, options);
    try {
      const remarks = await this.remarksOn(pdf, options);
      const notes = await this.strangers.notes(path, kind, options);
      const kept = await this.keepPdf(pdf, () => this.files.takeMade(pdf), { ...keep, notes });
      return { ...kept, remarks };
    } finally {
      await rm(pdf, { force: true });
    }
  }

  /** Pages of a document that its owner took in: those that `pages` names, or all. Throws Problem with what to do. */
  async read(material: Material, pages: string, options: PdfTaskOptions): Promise<ReadMaterial> {
    if (material.kind !== 'pdf') throw notFound('This document');
    const read = await this.readPages(await this.files.local(material.sha256), pages, options);
    return { material, pages: read.pages };
  }

  /** A teacher's own document. Throws Problem. */
  async own(teacherId: string, id: string): Promise<Material> {
    const material = await this.materials.findOneBy({ id, teacherId });
    if (!material) throw notFound('This document');
    return material;
  }

  /** The id of a teacher's own note of a document that may be a colleague's. Throws Problem where it is gone. */
  async ownNote(id: string, teacherId: string): Promise<string> {
    const material = await this.find(id);
    if (!material) throw notFound('This document');
    if (material.teacherId === teacherId) return id;
    const { sha256, kind } = material;
    const own = await this.materials.findOneBy({ teacherId, sha256, kind });
    if (own) return own.id;
    return (await this.note({ ...material, id: randomUUID(), teacherId, createdAt: Date.now() })).id;
  }

  /** Notes a file that is stored already. */
  async note(material: Material): Promise<Material> {
    await this.materials.insert(material);
    return material;
  }

  find(id: string): Promise<Material | null> {
    return this.materials.findOneBy({ id });
  }

  private async keepPdf(
    path: string,
    store: () => Promise<string>,
    { name, pages, options, notes = [] }: Keeping,
  ): Promise<ReadMaterial> {
    const bytes = await checkHead(path);
    const { count, pages: read } = await this.readPages(path, pages, options);
    const material: Material = {
      id: randomUUID(),
      teacherId: options.owner,
      kind: 'pdf' as const,
      name,
      sha256: await store(),
      bytes,
      pageCount: count,
      notes: notes.some((note) => note !== '') ? [...notes] : null,
      mime: null,
      createdAt: Date.now(),
    };
    await this.materials.insert(material);
    return { material, pages: read };
  }

  /** How many pages there are, and those that are wanted. */
  private async readPages(
    path: string,
    pages: string | null,
    options: PdfTaskOptions,
  ): Promise<{ count: number; pages: ReadPage[] }> {
    const { maxPages } = await this.schools.limitsOfTeacher(options.owner);
    try {
      if (pages === null) return { count: await this.pdfs.count(path, options), pages: [] };
      return await this.pdfs.sizes(path, { pages, maxPages }, options);
    } catch (error) {
      throw pdfProblem(error, maxPages);
    }
  }

  private async remarksOn(pdf: string, options: PdfTaskOptions): Promise<ProblemReply[]> {
    const { maxPages } = await this.schools.limitsOfTeacher(options.owner);
    const letters = await this.pdfs.letters(pdf, LOOKED_AT, options).catch(throwProblem(maxPages));
    const missing = [...(await lettersWithoutFont(letters))];
    if (missing.length === 0) return [];
    const named = missing.slice(0, NAMED).join(' ') + (missing.length > NAMED ? ' …' : '');
    return [
      {
        code: 'letters-missing',
        message: `Some letters show as boxes, because the server has no font for them: ${named}. Fonts for nearly all scripts are installed with: apt-get install fonts-noto-core fonts-noto-cjk. Until then, save the document as PDF yourself and bring that in.`,
        values: { named },
      },
    ];
  }
}

function throwProblem(maxPages: number): (error: unknown) => never {
  return (error) => {
    throw pdfProblem(error, maxPages);
  };
}

/** Size of the file. A PDF says so within its first 1,024 bytes (ISO 32000-1 annex H.3, note 13). */
async function checkHead(path: string): Promise<number> {
  const file = await open(path);
  try {
    const { size } = await file.stat();
    if (size === 0) throw pdfProblem({ fault: 'empty' });
    const { buffer, bytesRead } = await file.read(Buffer.alloc(1024), 0, 1024, 0);
    if (!buffer.subarray(0, bytesRead).includes('%PDF-')) {
      throw new Problem(
        415,
        'not-a-pdf',
        'This file is not a PDF. Please choose a file whose name ends in .pdf, or save your document as PDF first.',
      );
    }
    return size;
  } finally {
    await file.close();
  }
}
