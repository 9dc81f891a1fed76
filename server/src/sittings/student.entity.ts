import { Column, Entity, PrimaryColumn } from 'typeorm';

/** Somebody who joined a sitting by its code. */
@Entity('student')
export class Student {
  @PrimaryColumn({ type: 'text' }) id: string;
  @Column({ type: 'text', name: 'sitting_id' }) sittingId: string;
  @Column({ type: 'text' }) name: string;
  @Column({ type: 'text' }) colour: string;
  /** Counts from 0; a seat that is free is taken again. It says how a name looks. */
  @Column({ type: 'integer' }) seat: number;
  @Column({ type: 'integer', name: 'joined_at' }) joinedAt: number;
  /** When they first connected; a seat that nobody takes lapses. */
  @Column({ type: 'integer', name: 'entered_at', nullable: true }) enteredAt: number | null;
}
