import type { PollValue } from '@doodla/core';
import { Column, Entity, PrimaryColumn } from 'typeorm';

/** What a student has answered; the last counts. */
@Entity('poll_answer')
export class GivenAnswer {
  @PrimaryColumn({ type: 'text', name: 'poll_id' }) pollId: string;
  @PrimaryColumn({ type: 'text', name: 'student_id' }) studentId: string;
  @Column({ type: 'simple-json' }) value: PollValue;
  @Column({ type: 'integer' }) at: number;
}
