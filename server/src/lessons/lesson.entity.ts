import { Column, Entity, PrimaryColumn } from 'typeorm';

/** What a teacher prepares. Its pages and prepared marks are the log of the same id. */
@Entity('lesson')
export class Lesson {
  @PrimaryColumn({ type: 'text' }) id: string;
  @Column({ type: 'text', name: 'teacher_id' }) teacherId: string;
  @Column({ type: 'text' }) title: string;
  @Column({ type: 'text', name: 'cover_sha256', nullable: true }) coverSha256: string | null;
  @Column({ type: 'integer', name: 'created_at' }) createdAt: number;
  @Column({ type: 'integer', name: 'used_at' }) usedAt: number;
  @Column({ type: 'integer', name: 'deleted_at', nullable: true }) deletedAt: number | null;
}
