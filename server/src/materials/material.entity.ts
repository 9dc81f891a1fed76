import { Column, Entity, PrimaryColumn } from 'typeorm';

/** A document that a teacher brought in; the file itself is stored under its SHA-256. */
@Entity('material')
export class Material {
  @PrimaryColumn({ type: 'text' }) id: string;
  @Column({ type: 'text', name: 'teacher_id' }) teacherId: string;
  @Column({ type: 'text' }) kind: 'pdf';
  @Column({ type: 'text' }) name: string;
  @Column({ type: 'text' }) sha256: string;
  @Column({ type: 'integer' }) bytes: number;
  @Column({ type: 'integer', name: 'page_count' }) pageCount: number;
  @Column({ type: 'integer', name: 'created_at' }) createdAt: number;
}
