import { Injectable } from '@nestjs/common';
import { InjectRepository } from '@nestjs/typeorm';
import { randomUUID } from 'node:crypto';
import { readFile, stat } from 'node:fs/promises';
import { Repository } from 'typeorm';
import { Problem } from '../http/problem.js';
import { Material } from '../materials/material.entity.js';
import { StrangersService } from '../reading/strangers.service.js';
import { Settings } from '../settings/settings.js';
import { FileStore } from '../storage/fileStore.js';
import type { FetchLimits } from './fetchWeb.js';
import { fetchWeb } from './fetchWeb.js';
import { isArchive } from './mhtml.js';
import type { PageCopy, PartSource } from './pageCopy.js';
import { notAPage } from './pageCopy.js';

const MAX_PAGE_BYTES = 8_000_000;
const MAX_PART_BYTES = 8_000_000;

/** Takes web pages in, by address or as files, as copies that need nothing from anywhere. */
@Injectable()
export class WebPagesService {
  constructor(
    @InjectRepository(Material) private readonly materials: Repository<Material>,
    private readonly files: FileStore,
    private readonly settings: Settings,
    private readonly strangers: StrangersService,
  ) {}

  /** Throws Problem with what to do. */
  async fromAddress(teacherId: string, address: string, signal: AbortSignal): Promise<Material> {
    const limits = { allowPrivate: this.settings.fetchPrivate, signal };
    const page = await fetchWeb(address, {
      ...limits,
      maxBytes: MAX_PAGE_BYTES,
      accept: /^(text\/html|application\/xhtml\+xml)$/,
    });
    const html = new TextDecoder(charsetOf(page.charset, page.bytes)).decode(page.bytes);
    const copy = await this.strangers.page(html, page.url, partsBy(limits), signal);
    return this.keep(teacherId, copy, page.url);
  }

  /** Throws Problem with what to do. */
  async fromFile(teacherId: string, path: string, name: string, signal: AbortSignal): Promise<Material> {
    if ((await stat(path)).size > 4 * MAX_PAGE_BYTES) throw tooLarge();
    const bytes = await readFile(path);
    const text = new TextDecoder(charsetOf(undefined, bytes)).decode(bytes);
    const isPage = isArchive(text) || /<(?:html|body|head|p|div|h1|!doctype)\b/i.test(text);
    if (!isPage) throw notAPage();
    const limits = { allowPrivate: this.settings.fetchPrivate, signal };
    const copy = await this.strangers.page(text, 'http://file.invalid/', partsBy(limits), signal);
    return this.keep(teacherId, copy, name);
  }

  private async keep(teacherId: string, { html, title }: PageCopy, name: string): Promise<Material> {
    const bytes = Buffer.from(html);
    return this.materials.save({
      id: randomUUID(),
      teacherId,
      kind: 'web' as const,
      mime: null,
      name: title || name.slice(0, 200),
      sha256: await this.files.put(bytes),
      bytes: bytes.length,
      pageCount: 1,
      notes: null,
      createdAt: Date.now(),
    });
  }
}

function partsBy(limits: Pick<FetchLimits, 'allowPrivate' | 'signal'>): PartSource {
  return (url) =>
    url.includes('.invalid/')
      ? Promise.resolve(undefined)
      : fetchWeb(url, { ...limits, maxBytes: MAX_PART_BYTES, accept: /./ });
}

/** By header, else by what the page says of itself, else UTF-8. */
function charsetOf(header: string | undefined, bytes: Buffer): string {
  const said = /<meta[^>]+charset=["']?([\w-]+)/i.exec(bytes.subarray(0, 2048).toString('latin1'))?.[1];
  for (const charset of [header, said]) {
    try {
      if (charset !== undefined) return new TextDecoder(charset).encoding;
    } catch {
      // An unknown name says nothing.
    }
  }
  return 'utf-8';
}

function tooLarge(): Problem {
  return new Problem(
    413,
    'too-large',
    'This page is too large to be taken in. Please save it as PDF and bring that in.',
  );
}
