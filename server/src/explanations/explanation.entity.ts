import type { Caption, ExplanationChapter, ExplanationStop, Part } from '@doodla/core';
import { Column, Entity, PrimaryColumn } from 'typeorm';

/** A recorded explanation of a lesson's or class's pages. */
@Entity('explanation')
export class StoredExplanation {
  @PrimaryColumn({ type: 'text' }) id: string;
  /** The lesson whose pages are explained, or the class. */
  @Column({ type: 'text', name: 'lesson_id', nullable: true }) lessonId: string | null;
  @Column({ type: 'text', name: 'sitting_id', nullable: true }) sittingId: string | null;
  @Column({ type: 'text' }) name: string;
  @Column({ type: 'simple-json', nullable: true }) parts: Part[] | null;
  @Column({ type: 'simple-json' }) stops: ExplanationStop[];
  @Column({ type: 'simple-json' }) chapters: ExplanationChapter[];
  @Column({ type: 'simple-json' }) captions: Caption[];
  @Column({ type: 'boolean' }) finished: boolean;
  @Column({ type: 'integer', name: 'created_at' }) createdAt: number;
  @Column({ type: 'integer', name: 'dropped_at', nullable: true }) droppedAt: number | null;
}
