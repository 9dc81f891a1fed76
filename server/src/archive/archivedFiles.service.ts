import { Injectable } from '@nestjs/common';
import { InjectRepository } from '@nestjs/typeorm';
import type { ArchivedFile } from '@doodla/core/archive';
import { randomUUID } from 'node:crypto';
import { open, stat } from 'node:fs/promises';
import { Repository } from 'typeorm';
import { Problem } from '../http/problem.js';
import { Material } from '../materials/material.entity.js';
import { PdfReader } from '../materials/pdfReader.js';
import { mediaType } from '../media/mediaType.js';
import { checkedType } from '../pictures/checkedType.js';
import { FileStore } from '../storage/fileStore.js';
import { WebPagesService } from '../webpages/webPages.service.js';

/** A file that was stored: the id of its document, or one for a picture. */
export interface KeptFile {
  id: string;
  bytes: number;
}

/** Takes files of archives in, each looked at as if it came alone: an archive may be anybody's. */
@Injectable()
export class ArchivedFilesService {
  constructor(
    @InjectRepository(Material) private readonly materials: Repository<Material>,
    private readonly files: FileStore,
    private readonly pdfs: PdfReader,
    private readonly webPages: WebPagesService,
  ) {}

  /** Stores an unpacked file. Throws Problem. */
  async keep(path: string, file: ArchivedFile, teacherId: string): Promise<KeptFile> {
    const { size: bytes } = await stat(path);
    if (file.kind === 'picture') return { id: await this.keepPicture(path, file), bytes };
    const { sha256 } = file;
    const isKnown = await this.materials.existsBy({ sha256, kind: file.kind });
    // A copy of a page that was made here needs no second cleaning, which would take its links.
    if (file.kind === 'web' && !isKnown) {
      const { material } = await this.webPages.fromArchive(teacherId, path, file.name);
      return material;
    }
    if (file.kind === 'pdf') await this.checkPdf(path, file, teacherId);
    const mime = file.kind === 'media' ? await soundOrVideo(path) : null;
    const { kind, name, pageCount, createdAt } = file;
    const notes = file.notes && [...file.notes];
    const id = randomUUID();
    await this.files.take({ path, sha256 });
    await this.materials.insert({
      ...{ id, teacherId, kind, name, sha256, bytes, pageCount, notes, mime, createdAt },
    });
    return { id, bytes };
  }

  private async keepPicture(path: string, { sha256, type }: ArchivedFile): Promise<string> {
    const own = await checkedType(path).catch(() => {
      // A picture that is none was changed since it was packed.
      throw damaged();
    });
    if (`image/${own}` !== type) throw damaged();
    await this.files.take({ path, sha256 });
    return randomUUID();
  }

  private async checkPdf(path: string, { pageCount }: ArchivedFile, owner: string): Promise<void> {
    const count = await this.pdfs.count(path, { owner }).catch(() => {
      // It was whole when it was packed; why it cannot be read now does not help.
      throw damaged();
    });
    if (count !== pageCount) throw damaged();
  }
}

async function soundOrVideo(path: string): Promise<string> {
  const file = await open(path);
  try {
    const { buffer, bytesRead } = await file.read(Buffer.alloc(128), 0, 128, 0);
    const type = bytesRead > 0 ? mediaType(buffer) : undefined;
    if (!type) throw damaged();
    return type.mime;
  } finally {
    await file.close();
  }
}

function damaged(): Problem {
  return new Problem(
    422,
    'archive-file-damaged',
    'A document or picture in this archive is damaged, so nothing of it was taken in. Please hand the lesson out again, or choose another copy of the file.',
  );
}
