import { Column, Entity, PrimaryColumn } from 'typeorm';

/** What a teacher prepares. Its pages and prepared marks are the log of the same id. */
@Entity('lesson')
export class Lesson {
  @PrimaryColumn({ type: 'text' }) id: string;
  @Column({ type: 'text', name: 'teacher_id' }) teacherId: string;
  @Column({ type: 'text' }) title: string;
  @Column({ type: 'text', name: 'cover_sha256', nullable: true }) coverSha256: string | null;
  /** The folder that it lies in, if it lies in one. */
  @Column({ type: 'text', name: 'folder_id', nullable: true }) folderId: string | null;
  @Column({ type: 'boolean' }) favourite: boolean;
  @Column({ type: 'simple-json', nullable: true }) tags: string[] | null;
  /** When it was put into the archive; null where it is among the others. */
  @Column({ type: 'integer', name: 'archived_at', nullable: true }) archivedAt: number | null;
  @Column({ type: 'integer', name: 'created_at' }) createdAt: number;
  @Column({ type: 'integer', name: 'used_at' }) usedAt: number;
  @Column({ type: 'integer', name: 'deleted_at', nullable: true }) deletedAt: number | null;
}
