import { Injectable } from '@nestjs/common';
import type { Request, Response } from 'express';
import { rm } from 'node:fs/promises';
import { answerInLines } from '../http/progressLines.js';
import { receiveUpload } from '../http/upload.js';
import type { Teacher } from '../people/teacher.entity.js';
import { RoomService } from '../schools/room.service.js';
import { FileStore } from '../storage/fileStore.js';
import type { TakenMaterial } from './materials.service.js';
import { MaterialsService } from './materials.service.js';

/** Takes documents that are sent, telling how far that is. */
@Injectable()
export class DocumentIntake {
  constructor(
    private readonly materials: MaterialsService,
    private readonly files: FileStore,
    private readonly room: RoomService,
  ) {}

  /**
   * Receives a document and does something with it. Answers in lines (`answerInLines`): `{"waiting"}` for documents
   * before it, `{"done","total"}` for pages read. `pages` names those that are wanted, or none yet.
   */
  async receive(
    teacher: Teacher,
    request: Request,
    response: Response,
    pages: string | null,
    work: (taken: TakenMaterial) => Promise<object>,
  ): Promise<void> {
    const limits = await this.room.forUpload(teacher.id);
    const upload = await receiveUpload(request, response, this.files, limits);
    const apology = 'The document could not be taken in. Please try again.';
    try {
      await answerInLines(response, apology, async ({ line, signal }) => {
        const options = {
          owner: teacher.id,
          signal,
          onProgress: (done: number, total: number) => line({ done, total }),
          onWaiting: (waiting: number) => line({ waiting }),
        };
        const taken = await this.materials.take(upload, pages, options);
        signal.throwIfAborted();
        return work(taken);
      });
    } finally {
      await rm(upload.path, { force: true });
    }
  }
}
