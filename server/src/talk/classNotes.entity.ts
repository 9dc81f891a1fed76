import type { KeptNotes } from '@doodla/core/notes';
import { Column, Entity, PrimaryColumn } from 'typeorm';

/** The notes of a class, and the last steps that led to them. */
@Entity('class_notes')
export class ClassNotes {
  @PrimaryColumn({ type: 'text', name: 'sitting_id' }) sittingId: string;
  @Column({ type: 'simple-json' }) body: Pick<KeptNotes, 'doc' | 'steps'>;
  @Column({ type: 'integer' }) version: number;
  @Column({ type: 'integer', name: 'changed_at' }) changedAt: number;
}
