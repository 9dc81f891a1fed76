import { Column, Entity, PrimaryColumn } from 'typeorm';
import type { ReadWord } from './readingTask.js';

/** The words that have been read on a page of a stored file. */
@Entity('read_words')
export class ReadWords {
  @PrimaryColumn({ type: 'text' }) sha256: string;
  /** From 0; 0 for a picture. */
  @PrimaryColumn({ type: 'integer' }) page: number;
  @Column({ type: 'text' }) language: string;
  @Column({ type: 'simple-json' }) words: ReadWord[];
}
