import { Injectable } from '@nestjs/common';
import { LRUCache } from 'lru-cache';
import { notFound } from '../http/problem.js';
import { FileStore } from '../storage/fileStore.js';
import type { Material } from './material.entity.js';
import { pdfProblem } from './pdfProblem.js';
import { PdfReader } from './pdfReader.js';

/** Sharp enough to read on a phone, pixels. */
const WIDTH = 1000;
const TALLEST = 3;
/** Pictures are kept up to so many bytes in all: a class of sixty asks for one within a minute. */
const KEPT_BYTES = 48_000_000;

/** Quick pictures of the pages of PDFs, each drawn once for all who ask. */
@Injectable()
export class PagePictures {
  private readonly kept: LRUCache<string, Buffer, Material>;

  constructor(
    private readonly files: FileStore,
    private readonly pdfs: PdfReader,
  ) {
    this.kept = new LRUCache({
      maxSize: KEPT_BYTES,
      sizeCalculation: ({ length }) => Math.max(1, length),
      fetchMethod: (key, _stale, { context }) => this.draw(context, Number(key.split(' ')[1])),
    });
  }

  /** A WebP picture of a page of a PDF, from 0. Throws Problem. */
  async of(material: Material, index: number): Promise<Buffer> {
    if (material.kind !== 'pdf' || !(index >= 0 && index < material.pageCount)) throw notFound('This page');
    const picture = await this.kept.fetch(`${material.sha256} ${index}`, { context: material });
    if (!picture) throw notFound('This page');
    return picture;
  }

  private async draw({ sha256, teacherId }: Material, index: number): Promise<Buffer> {
    const wish = { index, width: WIDTH, tallest: TALLEST, type: 'webp' as const };
    try {
      return Buffer.from(await this.pdfs.picture(await this.files.local(sha256), wish, teacherId));
    } catch (error) {
      throw pdfProblem(error);
    }
  }
}
