import { Column, Entity, PrimaryColumn } from 'typeorm';

/** What a page of a stored file says. */
@Entity('printed_words')
export class PrintedWords {
  @PrimaryColumn({ type: 'text' }) sha256: string;
  /** From 0; 0 for a web page. */
  @PrimaryColumn({ type: 'integer' }) page: number;
  @Column({ type: 'text' }) words: string;
}
