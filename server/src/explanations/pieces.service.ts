import { Injectable } from '@nestjs/common';
import { InjectRepository } from '@nestjs/typeorm';
import type { LogRef, Track } from '@doodla/core';
import { MOST_PIECES } from '@doodla/core';
import { createReadStream } from 'node:fs';
import { Repository } from 'typeorm';
import { Problem } from '../http/problem.js';
import { RoomService } from '../schools/room.service.js';
import { Database } from '../storage/database.js';
import { FileStore } from '../storage/fileStore.js';
import { StoredPiece } from './piece.entity.js';

/** Most bytes of all explanations of one lesson or class. */
const LOG_BYTES = 4_000_000_000;

export interface PieceRef {
  take: string;
  track: Track;
  number: number;
}

/** What was recorded, piece by piece as it came. */
@Injectable()
export class PiecesService {
  constructor(
    @InjectRepository(StoredPiece) private readonly pieces: Repository<StoredPiece>,
    private readonly files: FileStore,
    private readonly database: Database,
    private readonly room: RoomService,
  ) {}

  /** Keeps a piece; one that is here already stays. Throws Problem where there is no more room. */
  async put(log: LogRef, { take, track, number }: PieceRef, bytes: Buffer): Promise<void> {
    if (await this.pieces.existsBy({ takeId: take, track, number })) return;
    if (number >= MOST_PIECES || (await this.bytesOf(log)) + bytes.length > LOG_BYTES)
      throw new Problem(
        409,
        'explanations-too-large',
        'The explanations here are as large as they may be. Please finish this one, and drop others before you record more.',
      );
    await this.files.checkRoom();
    await this.room.checkLog(log, bytes.length);
    const sha256 = await this.files.put(bytes);
    const row = { takeId: take, track, number, sha256, bytes: bytes.length };
    await this.pieces.createQueryBuilder().insert().values(row).orIgnore().execute();
  }

  /** How large a track is, bytes. */
  async sizeOf(take: string, track: Track): Promise<number> {
    return (await this.pieces.sum('bytes', { takeId: take, track })) ?? 0;
  }

  /** A track, from its beginning. */
  async *read(take: string, track: Track): AsyncGenerator<Buffer> {
    const pieces = await this.pieces.find({ where: { takeId: take, track }, order: { number: 'ASC' } });
    for (const { sha256 } of pieces)
      yield* createReadStream(await this.files.local(sha256)) as AsyncIterable<Buffer>;
  }

  private async bytesOf({ kind, id }: LogRef): Promise<number> {
    const [row] = await this.database.all<{ bytes: number | null }>(
      `SELECT sum(bytes) AS bytes FROM explanation_piece
       JOIN explanation_take ON explanation_take.id = take_id
       JOIN explanation ON explanation.id = explanation_id
       WHERE ${kind === 'lesson' ? 'lesson_id' : 'sitting_id'} = ?`,
      [id],
    );
    return row?.bytes ?? 0;
  }
}
