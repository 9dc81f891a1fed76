import { Column, Entity, PrimaryColumn } from 'typeorm';

/** A folder in which a teacher keeps lessons. */
@Entity('lesson_folder')
export class LessonFolder {
  @PrimaryColumn({ type: 'text' }) id: string;
  @Column({ type: 'text', name: 'teacher_id' }) teacherId: string;
  /** The folder that it lies in; null where it lies in none. */
  @Column({ type: 'text', name: 'parent_id', nullable: true }) parentId: string | null;
  @Column({ type: 'text' }) title: string;
  @Column({ type: 'integer', name: 'created_at' }) createdAt: number;
}
