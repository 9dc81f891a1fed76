import { Column, Entity, PrimaryColumn } from 'typeorm';

/** A class as a teacher has it all term. */
@Entity('class_group')
export class ClassGroup {
  @PrimaryColumn({ type: 'text' }) id: string;
  @Column({ type: 'text', name: 'teacher_id' }) teacherId: string;
  @Column({ type: 'text' }) title: string;
  @Column({ type: 'simple-json' }) names: string[];
  /** The join code of all its sittings; null where each has its own. */
  @Column({ type: 'text', nullable: true }) code: string | null;
  @Column({ type: 'integer', name: 'created_at' }) createdAt: number;
}
