import { Column, Entity, PrimaryColumn } from 'typeorm';

/** What somebody has said to a class. */
@Entity('chat_message')
export class SaidWords {
  @PrimaryColumn({ type: 'text' }) id: string;
  @Column({ type: 'text', name: 'sitting_id' }) sittingId: string;
  @Column({ type: 'text' }) author: string;
  /** What a student was called then; null of the teacher. */
  @Column({ type: 'text', nullable: true }) name: string | null;
  @Column({ type: 'text' }) words: string;
  @Column({ type: 'integer' }) at: number;
  /** When the teacher took it away. */
  @Column({ type: 'integer', name: 'removed_at', nullable: true }) removedAt: number | null;
}
