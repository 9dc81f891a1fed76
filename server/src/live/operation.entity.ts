import type { Change } from '@doodla/core';
import { Column, Entity, PrimaryColumn } from 'typeorm';

/** An operation in a log. `inverse` takes it back. */
@Entity('operation')
export class StoredOperation {
  @PrimaryColumn({ type: 'text', name: 'log_id' }) logId: string;
  @PrimaryColumn({ type: 'integer' }) seq: number;
  @Column({ type: 'text' }) id: string;
  @Column({ type: 'text' }) author: string;
  @Column({ type: 'integer' }) at: number;
  @Column({ type: 'text', nullable: true }) undoes: string | null;
  @Column({ type: 'simple-json' }) changes: Change[];
  @Column({ type: 'simple-json' }) inverse: Change[];
}
