import type { LimitName } from '@doodla/core';
import { Column, Entity, PrimaryColumn } from 'typeorm';

/** A limit that whoever looks after the school has set. */
@Entity('school_limit')
export class SchoolLimit {
  @PrimaryColumn({ type: 'text' }) name: LimitName | 'tellOfRecording';
  /** 0 or 1 of what is on or off. */
  @Column({ type: 'integer' }) value: number;
}
