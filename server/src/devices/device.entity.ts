import { Column, Entity, PrimaryColumn } from 'typeorm';

/** A display, writing pad or companion that a teacher has let into a sitting, or a companion in a lesson; it writes as the teacher. */
@Entity('device')
export class Device {
  @PrimaryColumn({ type: 'text' }) id: string;
  /** Null in a lesson that is being prepared. */
  @Column({ type: 'text', name: 'sitting_id', nullable: true }) sittingId: string | null;
  /** Null in a class. */
  @Column({ type: 'text', name: 'lesson_id', nullable: true }) lessonId: string | null;
  @Column({ type: 'text' }) kind: 'display' | 'pad' | 'companion';
  /** What is typed or scanned once to come in. */
  @Column({ type: 'text' }) code: string;
  @Column({ type: 'integer', name: 'created_at' }) createdAt: number;
  @Column({ type: 'integer', name: 'entered_at', nullable: true }) enteredAt: number | null;
  @Column({ type: 'integer', name: 'removed_at', nullable: true }) removedAt: number | null;
}
