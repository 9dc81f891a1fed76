import { Column, Entity, PrimaryColumn } from 'typeorm';

/** Something that a teacher has set for themselves, as JSON. */
@Entity('preference')
export class Preference {
  @PrimaryColumn({ type: 'text', name: 'teacher_id' }) teacherId: string;
  @PrimaryColumn({ type: 'text' }) name: string;
  @Column({ type: 'simple-json' }) value: object;
}
