import type { SchoolDeedKind } from '@doodla/core';
import { Column, Entity, PrimaryColumn } from 'typeorm';

/** Something that whoever looks after the installation did to a school, for the school to see. */
@Entity('school_deed')
export class StoredDeed {
  @PrimaryColumn({ type: 'text' }) id: string;
  @Column({ type: 'text', name: 'school_id' }) schoolId: string;
  @Column({ type: 'integer' }) at: number;
  @Column({ type: 'text' }) kind: SchoolDeedKind;
  /** Such as the address of who was invited; may be empty. */
  @Column({ type: 'text' }) what: string;
  /** The name of who did it. */
  @Column({ type: 'text', name: 'done_by' }) by: string;
}
