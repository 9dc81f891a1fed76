import type { LogSnapshot } from '@doodla/core';
import { Column, Entity, PrimaryColumn } from 'typeorm';

/** A log's state after `seq` operations, so that opening it need not replay them all. */
@Entity('snapshot')
export class StoredSnapshot {
  @PrimaryColumn({ type: 'text', name: 'log_id' }) logId: string;
  @Column({ type: 'integer' }) seq: number;
  @Column({ type: 'simple-json' }) body: LogSnapshot;
}
