import { Controller, Get, Param, ParseIntPipe, Res, UseGuards } from '@nestjs/common';
import type { Response } from 'express';
import { notFound } from '../http/problem.js';
import type { Visitor } from '../people/visitor.js';
import { CurrentVisitor, VisitorGuard } from '../people/visitor.guard.js';
import { FileStore } from '../storage/fileStore.js';
import { FileAccess } from './fileAccess.js';
import { PagePictures } from './pagePictures.js';

@Controller('api/materials')
@UseGuards(VisitorGuard)
export class MaterialsController {
  constructor(
    private readonly access: FileAccess,
    private readonly files: FileStore,
    private readonly pictures: PagePictures,
  ) {}

  /** The copy of a web page; nothing in it can run, fetch or send. */
  @Get(':id/page')
  async page(
    @Param('id') id: string,
    @CurrentVisitor() visitor: Visitor,
    @Res() response: Response,
  ): Promise<void> {
    const material = await this.access.material(visitor, id);
    if (material.kind !== 'web') throw notFound('This web page');
    response.sendFile(await this.files.local(material.sha256), {
      headers: {
        'Content-Type': 'text/html; charset=utf-8',
        'Content-Security-Policy':
          "default-src 'none'; img-src data:; style-src 'unsafe-inline'; font-src data:; form-action 'none'; base-uri 'none'; frame-ancestors 'self'; sandbox allow-same-origin",
      },
      immutable: true,
      maxAge: '1y',
      dotfiles: 'allow',
    });
  }

  /** The stored file; parts of it by HTTP range (RFC 9110 §14). */
  @Get(':id/file')
  async file(
    @Param('id') id: string,
    @CurrentVisitor() visitor: Visitor,
    @Res() response: Response,
  ): Promise<void> {
    const material = await this.access.material(visitor, id);
    response.sendFile(await this.files.local(material.sha256), {
      headers: {
        'Content-Type': material.mime ?? 'application/pdf',
        'Content-Security-Policy': 'sandbox',
      },
      cacheControl: true,
      immutable: true,
      maxAge: '1y',
      dotfiles: 'allow',
    });
  }

  /** A quick picture of a page of a PDF, for those whose line takes a while to bring what draws it sharply. */
  @Get(':id/pages/:index/picture')
  async picture(
    @Param('id') id: string,
    @Param('index', ParseIntPipe) index: number,
    @CurrentVisitor() visitor: Visitor,
    @Res() response: Response,
  ): Promise<void> {
    const material = await this.access.material(visitor, id);
    const picture = await this.pictures.of(material, index);
    response.set('Cache-Control', 'private, max-age=31536000, immutable').type('image/webp').send(picture);
  }

  /** What the speaker wrote beside each page; for the teacher alone. */
  @Get(':id/notes')
  async notes(@Param('id') id: string, @CurrentVisitor() visitor: Visitor): Promise<{ notes: string[] }> {
    if (visitor.role !== 'teacher') throw notFound('This document');
    const material = await this.access.material(visitor, id);
    return { notes: material.notes ?? [] };
  }
}
