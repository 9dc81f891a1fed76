import { Injectable } from '@nestjs/common';
import { InjectRepository } from '@nestjs/typeorm';
import { randomUUID } from 'node:crypto';
import { open, rm, stat } from 'node:fs/promises';
import { Repository } from 'typeorm';
import type { ConvertOptions } from '../documents/officeConverter.js';
import { OfficeConverter } from '../documents/officeConverter.js';
import { Problem } from '../http/problem.js';
import { StrangersService } from '../reading/strangers.service.js';
import { Settings } from '../settings/settings.js';
import { FileStore } from '../storage/fileStore.js';
import { Material } from './material.entity.js';
import type { PdfTaskOptions } from './pdfReader.js';
import { PdfError, PdfReader } from './pdfReader.js';
import type { PdfFault } from './pdfTask.js';

export interface ReadMaterial {
  material: Material;
  /** Displayed page sizes in page units. */
  sizes: { width: number; height: number }[];
}

export type TakeOptions = PdfTaskOptions & ConvertOptions;

/** Takes documents in. */
@Injectable()
export class MaterialsService {
  constructor(
    @InjectRepository(Material) private readonly materials: Repository<Material>,
    private readonly files: FileStore,
    private readonly pdfs: PdfReader,
    private readonly office: OfficeConverter,
    private readonly settings: Settings,
    private readonly strangers: StrangersService,
  ) {}

  /** Takes a document of any kind in, as PDF. Throws Problem with what to do. */
  async take(teacherId: string, path: string, name: string, options: TakeOptions): Promise<ReadMaterial> {
    if ((await stat(path)).size === 0) throw this.problemOf('empty');
    const kind = await this.strangers.kindOf(path, name);
    if (kind === 'pdf') return this.takePdf(teacherId, path, name, options);
    const pdf = await this.office.toPdf(path, kind, options);
    try {
      return await this.takePdf(teacherId, pdf, name, options, await this.strangers.notes(path, kind));
    } finally {
      await rm(pdf, { force: true });
    }
  }

  /** Checks a PDF, stores it and notes it. Throws Problem with what to do. */
  async takePdf(
    teacherId: string,
    path: string,
    name: string,
    options: PdfTaskOptions,
    notes: readonly string[] = [],
  ): Promise<ReadMaterial> {
    const bytes = await this.checkHead(path);
    const sizes = await this.pdfs.sizes(path, this.settings.maxPages, options).catch((error: unknown) => {
      throw error instanceof PdfError ? this.problemOf(error.fault) : error;
    });
    const material = await this.materials.save({
      id: randomUUID(),
      teacherId,
      kind: 'pdf' as const,
      name,
      sha256: await this.files.take(path),
      bytes,
      pageCount: sizes.length,
      notes: notes.some((note) => note !== '') ? [...notes] : null,
      mime: null,
      createdAt: Date.now(),
    });
    return { material, sizes };
  }

  /** Notes a file that is stored already. */
  note(material: Material): Promise<Material> {
    return this.materials.save(material);
  }

  find(id: string): Promise<Material | null> {
    return this.materials.findOneBy({ id });
  }

  /** Size of the file. A PDF says so within its first 1,024 bytes (ISO 32000-1 annex H.3, note 13). */
  private async checkHead(path: string): Promise<number> {
    const file = await open(path);
    try {
      const { size } = await file.stat();
      if (size === 0) throw this.problemOf('empty');
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

  private problemOf(fault: PdfFault): Problem {
    const sentences: Record<PdfFault, string> = {
      password:
        'This PDF is protected with a password. Please save a copy without a password and choose that one.',
      damaged:
        'This PDF is damaged and cannot be read. Please open it in another program, save or print it as PDF again, and choose that one.',
      empty: 'This file is empty. Please check the original and choose it again.',
      'too-many-pages': `This PDF has more than ${this.settings.maxPages} pages. Please split it and choose one part.`,
      'too-slow':
        'This PDF takes too long to read. Please print it as PDF again, or split it, and choose that one.',
    };
    return new Problem(422, fault, sentences[fault]);
  }
}
