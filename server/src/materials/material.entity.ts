import { Column, Entity, PrimaryColumn } from 'typeorm';

/** A document, web page, or sound or video file that a teacher brought in; the file itself is stored under its SHA-256. */
@Entity('material')
export class Material {
  @PrimaryColumn({ type: 'text' }) id: string;
  @Column({ type: 'text', name: 'teacher_id' }) teacherId: string;
  @Column({ type: 'text' }) kind: 'pdf' | 'web' | 'media';
  @Column({ type: 'text' }) name: string;
  @Column({ type: 'text' }) sha256: string;
  @Column({ type: 'integer' }) bytes: number;
  @Column({ type: 'integer', name: 'page_count' }) pageCount: number;
  /** What the speaker wrote beside each page, where the document had such a thing. */
  @Column({ type: 'simple-json', nullable: true }) notes: string[] | null;
  /** Media type (RFC 6838) of a sound or video file. */
  @Column({ type: 'text', nullable: true }) mime: string | null;
  @Column({ type: 'integer', name: 'created_at' }) createdAt: number;
}
