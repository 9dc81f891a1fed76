import { Entity, PrimaryColumn } from 'typeorm';

/** Which materials a lesson's pages come from. */
@Entity('lesson_material')
export class LessonMaterial {
  @PrimaryColumn({ type: 'text', name: 'lesson_id' }) lessonId: string;
  @PrimaryColumn({ type: 'text', name: 'material_id' }) materialId: string;
}
