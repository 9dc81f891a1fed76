import type { Track } from '@doodla/core';
import { Column, Entity, PrimaryColumn } from 'typeorm';

/** Some seconds of a track; stored like any file, under its SHA-256. */
@Entity('explanation_piece')
export class StoredPiece {
  @PrimaryColumn({ type: 'text', name: 'take_id' }) takeId: string;
  @PrimaryColumn({ type: 'text' }) track: Track;
  /** 0, 1, 2 … */
  @PrimaryColumn({ type: 'integer' }) number: number;
  @Column({ type: 'text' }) sha256: string;
  @Column({ type: 'integer' }) bytes: number;
}
