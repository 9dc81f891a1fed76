import { Column, Entity, PrimaryColumn } from 'typeorm';

/** A page whose words are known; they are in the table `found_words` (SQLite FTS5), in the row of its number. */
@Entity('found_page')
export class FoundPage {
  @PrimaryColumn({ type: 'integer' }) key: number;
  /** The log that has the page: of the class, or of the lesson. */
  @Column({ type: 'text' }) log: string;
  @Column({ type: 'text' }) page: string;
  @Column({ type: 'text', name: 'lesson_id' }) lessonId: string;
  @Column({ type: 'text', name: 'sitting_id', nullable: true }) sittingId: string | null;
}
