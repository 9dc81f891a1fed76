import { Column, Entity, PrimaryColumn } from 'typeorm';

export type PictureType = 'png' | 'jpeg';

/** A picture that somebody put on a page of a lesson; the file is stored under its SHA-256. */
@Entity('picture')
export class StoredPicture {
  @PrimaryColumn({ type: 'text' }) id: string;
  @Column({ type: 'text', name: 'lesson_id' }) lessonId: string;
  /** The class that it was put on a page in; null for a prepared one. */
  @Column({ type: 'text', name: 'sitting_id', nullable: true }) sittingId: string | null;
  @Column({ type: 'text' }) author: string;
  @Column({ type: 'text' }) type: PictureType;
  @Column({ type: 'text' }) sha256: string;
  @Column({ type: 'integer' }) bytes: number;
  @Column({ type: 'integer', name: 'created_at' }) createdAt: number;
}
