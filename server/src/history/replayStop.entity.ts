import type { ReplayStop } from '@doodla/core';
import { Column, Entity, PrimaryColumn } from 'typeorm';

/** Where playing a lesson or class again waits. */
@Entity('replay_stop')
export class StoredStop implements ReplayStop {
  @PrimaryColumn({ type: 'text' }) id: string;
  /** The lesson whose log it is in, or the class. */
  @Column({ type: 'text', name: 'lesson_id', nullable: true }) lessonId: string | null;
  @Column({ type: 'text', name: 'sitting_id', nullable: true }) sittingId: string | null;
  @Column({ type: 'integer' }) at: number;
  @Column({ type: 'text', name: 'page_id' }) page: string;
  @Column({ type: 'text' }) text: string;
  @Column({ type: 'integer', nullable: true }) seconds: number | null;
}
