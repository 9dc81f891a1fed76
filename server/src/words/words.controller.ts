import type { ReadWordsRequest, ReadingLanguage, WordsReply } from '@doodla/core';
import { READING_LANGUAGES } from '@doodla/core';
import {
  Body,
  Controller,
  Get,
  Param,
  ParseIntPipe,
  ParseUUIDPipe,
  Post,
  Res,
  UseGuards,
} from '@nestjs/common';
import { IsIn } from 'class-validator';
import type { Response } from 'express';
import { answerInLines } from '../http/progressLines.js';
import { notFound, Problem } from '../http/problem.js';
import { FileAccess } from '../materials/fileAccess.js';
import { CurrentVisitor, VisitorGuard } from '../people/visitor.guard.js';
import type { Visitor } from '../people/visitor.js';
import { SearchIndexService } from '../search/searchIndex.service.js';
import type { ReadablePage } from './words.service.js';
import { WordsService } from './words.service.js';
import { BAD_INPUT } from '../http/badInput.js';

export class ReadDto implements ReadWordsRequest {
  @IsIn(READING_LANGUAGES, { message: BAD_INPUT['reading-language'] })
  language: ReadingLanguage;
}

/** The words of scanned pages. */
@Controller('api')
@UseGuards(VisitorGuard)
export class WordsController {
  constructor(
    private readonly words: WordsService,
    private readonly access: FileAccess,
    private readonly index: SearchIndexService,
  ) {}

  /** `words` is null where the page has not been read yet. */
  @Get('materials/:id/words/:page')
  async ofPage(
    @Param('id', ParseUUIDPipe) id: string,
    @Param('page', ParseIntPipe) page: number,
    @CurrentVisitor() visitor: Visitor,
  ): Promise<WordsReply> {
    return { words: (await this.words.of(await this.page(visitor, id, page))) ?? null };
  }

  @Get('pictures/:id/words')
  async ofPicture(
    @Param('id', ParseUUIDPipe) id: string,
    @CurrentVisitor() visitor: Visitor,
  ): Promise<WordsReply> {
    return { words: (await this.words.of(await this.picture(visitor, id))) ?? null };
  }

  /** Reads a page of a document. Answers in lines: `{"waiting"}`, `{"part"}` from 0 to 1, at last `{"words"}`. */
  @Post('materials/:id/words/:page')
  async readPage(
    @Param('id', ParseUUIDPipe) id: string,
    @Param('page', ParseIntPipe) page: number,
    @Body() { language }: ReadDto,
    @CurrentVisitor() visitor: Visitor,
    @Res() response: Response,
  ): Promise<void> {
    const owner = teacherOf(visitor);
    await this.read(await this.page(visitor, id, page), language, owner, response);
  }

  @Post('pictures/:id/words')
  async readPicture(
    @Param('id', ParseUUIDPipe) id: string,
    @Body() { language }: ReadDto,
    @CurrentVisitor() visitor: Visitor,
    @Res() response: Response,
  ): Promise<void> {
    const owner = teacherOf(visitor);
    await this.read(await this.picture(visitor, id), language, owner, response);
  }

  private async page(visitor: Visitor, id: string, page: number): Promise<ReadablePage> {
    const { kind, pageCount, sha256 } = await this.access.material(visitor, id);
    if (kind !== 'pdf' || page < 0 || page >= pageCount) throw notFound('This page');
    return { sha256, page };
  }

  private async picture(visitor: Visitor, id: string): Promise<ReadablePage> {
    return { sha256: (await this.access.picture(visitor, id)).sha256, page: null };
  }

  private read(
    page: ReadablePage,
    language: ReadingLanguage,
    owner: string,
    response: Response,
  ): Promise<void> {
    const apology = 'The words of this page could not be read. Please try again.';
    return answerInLines(response, apology, async ({ line, signal }) => {
      const words = await this.words.read(page, language, {
        owner,
        signal,
        onWaiting: (waiting) => line({ waiting }),
        onProgress: (part) => line({ part }),
      });
      await this.index.markFile(page.sha256);
      return { words };
    });
  }
}

/** Reading takes a core for some seconds: it is the teacher's to ask for. */
function teacherOf(visitor: Visitor): string {
  if (visitor.role === 'teacher') return visitor.teacher.id;
  throw new Problem(403, 'teacher-only', 'Only the teacher can have the words of a page read.');
}
