import { Column, Entity, PrimaryColumn } from 'typeorm';

/** Somebody who joined a sitting by its code. */
@Entity('student')
export class Student {
  @PrimaryColumn({ type: 'text' }) id: string;
  @Column({ type: 'text', name: 'sitting_id' }) sittingId: string;
  @Column({ type: 'text' }) name: string;
  @Column({ type: 'text' }) colour: string;
  @Column({ type: 'integer', name: 'joined_at' }) joinedAt: number;
}
