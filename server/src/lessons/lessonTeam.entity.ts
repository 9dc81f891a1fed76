import { Entity, PrimaryColumn } from 'typeorm';

/** Colleagues who work on a lesson together with the teacher whose it is. */
@Entity('lesson_team')
export class LessonTeam {
  @PrimaryColumn({ type: 'text', name: 'lesson_id' }) lessonId: string;
  @PrimaryColumn({ type: 'text', name: 'teacher_id' }) teacherId: string;
}
