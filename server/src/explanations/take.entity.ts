import type { Take } from '@doodla/core';
import { Column, Entity, PrimaryColumn } from 'typeorm';

/** What was recorded of an explanation without a break. */
@Entity('explanation_take')
export class StoredTake implements Take {
  @PrimaryColumn({ type: 'text' }) id: string;
  @Column({ type: 'text', name: 'explanation_id' }) explanationId: string;
  @Column({ type: 'integer', name: 'started_at' }) startedAt: number;
  @Column({ type: 'integer' }) length: number;
  @Column({ type: 'text', nullable: true }) voice: string | null;
  @Column({ type: 'text', nullable: true }) video: string | null;
  @Column({ type: 'text', nullable: true }) face: string | null;
}
