import type { Poll } from '@doodla/core';
import { Column, Entity, PrimaryColumn } from 'typeorm';

/** Something that a class was asked. */
@Entity('poll')
export class AskedPoll {
  @PrimaryColumn({ type: 'text' }) id: string;
  @Column({ type: 'text', name: 'sitting_id' }) sittingId: string;
  @Column({ type: 'simple-json' }) body: Poll;
  @Column({ type: 'integer', name: 'asked_at' }) askedAt: number;
  @Column({ type: 'integer', name: 'closed_at', nullable: true }) closedAt: number | null;
  /** When it was no longer shown. */
  @Column({ type: 'integer', name: 'put_away_at', nullable: true }) putAwayAt: number | null;
}
