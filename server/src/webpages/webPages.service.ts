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
import { isUtf8 } from '../documents/textEncoding.js';
import type { PageCopy, PartSource } from './pageCopy.js';
import { notAPage } from './pageCopy.js';

const MAX_PAGE_BYTES = 8_000_000;
const MAX_PART_BYTES = 8_000_000;

/** Takes web pages in, by address or as files, as copies that need nothing from anywhere. */
/** A stored copy, and how many pictures of the page could not be had. */
export interface KeptPage {
  material: Material;
  lost: number;
}

@Injectable()
export class WebPagesService {
  constructor(
    @InjectRepository(Material) private readonly materials: Repository<Material>,
    private readonly files: FileStore,
    private readonly settings: Settings,
    private readonly strangers: StrangersService,
  ) {}

  /** Throws Problem with what to do. */
  async fromAddress(teacherId: string, address: string, signal: AbortSignal): Promise<KeptPage> {
    const limits = { allowPrivate: this.settings.fetchPrivate, signal };
    const page = await fetchWeb(address, {
      ...limits,
      maxBytes: MAX_PAGE_BYTES,
      accept: /^(text\/html|application\/xhtml\+xml)$/,
    });
    const html = new TextDecoder(charsetOf(page.charset, page.bytes)).decode(page.bytes);
    const copy = await this.strangers.page(html, page.url, partsBy(limits), {
      owner: teacherId,
      signal,
    });
    return this.keep(teacherId, copy, page.url);
  }

  /** Throws Problem with what to do. */
  async fromFile(teacherId: string, path: string, name: string, signal: AbortSignal): Promise<KeptPage> {
    if ((await stat(path)).size > 4 * MAX_PAGE_BYTES) throw tooLarge();
    const bytes = await readFile(path);
    if (bytes.subarray(0, 5).toString('latin1') === '%PDF-') throw aPdf();
    const text = new TextDecoder(charsetOf(undefined, bytes)).decode(bytes);
    const isPage = isArchive(text) || /<(?:html|body|head|p|div|h1|!doctype)\b/i.test(text);
    if (!isPage) throw notAPage();
    const limits = { allowPrivate: this.settings.fetchPrivate, signal };
    const copy = await this.strangers.page(text, 'http://file.invalid/', partsBy(limits), {
      owner: teacherId,
      signal,
    });
    return this.keep(teacherId, copy, name);
  }

  /** Takes a copy that another Doodla made, cleaned again; its links lead nowhere. Throws Problem with what to do. */
  async fromArchive(teacherId: string, path: string, name: string): Promise<KeptPage> {
    if ((await stat(path)).size > 4 * MAX_PAGE_BYTES) throw tooLarge();
    const text = await readFile(path, 'utf8');
    const source = /<html[^>]*\sdata-source="(https?:[^"]+)"/.exec(text.slice(0, 4000))?.[1];
    const copy = await this.strangers.page(
      text,
      source ?? 'http://file.invalid/',
      () => Promise.resolve(undefined),
      { owner: teacherId },
    );
    return this.keep(teacherId, copy, name);
  }

  private async keep(teacherId: string, { html, title, lost }: PageCopy, name: string): Promise<KeptPage> {
    const bytes = Buffer.from(html);
    const material: Material = {
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
    };
    await this.materials.insert(material);
    return { material, lost };
  }
}

function partsBy(limits: Pick<FetchLimits, 'allowPrivate' | 'signal'>): PartSource {
  return (url) =>
    url.includes('.invalid/')
      ? Promise.resolve(undefined)
      : fetchWeb(url, { ...limits, maxBytes: MAX_PART_BYTES, accept: /./ });
}

/** By header, else by what the page says of itself, else UTF-8 where it can be that, else what browsers fall back to. */
function charsetOf(header: string | undefined, bytes: Buffer): string {
  const said = /<meta[^>]+charset=["']?([\w-]+)/i.exec(bytes.subarray(0, 2048).toString('latin1'))?.[1];
  for (const charset of [header, said]) {
    try {
      if (charset !== undefined) return new TextDecoder(charset).encoding;
    } catch {
      // An unknown name says nothing.
    }
  }
  if (bytes[0] === 0xff && bytes[1] === 0xfe) return 'utf-16le';
  return isUtf8(bytes) ? 'utf-8' : 'windows-1252';
}

function aPdf(): Problem {
  return new Problem(
    415,
    'a-pdf',
    'This file is a PDF, whatever its name says. Please bring it in under “Pages of a document”.',
  );
}

function tooLarge(): Problem {
  return new Problem(
    413,
    'page-too-large',
    'This page is too large to be taken in. Please save it as PDF and bring that in.',
  );
}
