import { Column, Entity, PrimaryColumn } from 'typeorm';

/** A link by which anybody sees pages, or an explanation, as they were when it was made. */
@Entity('shared_link')
export class SharedLink {
  @PrimaryColumn({ type: 'text' }) id: string;
  @Column({ type: 'text', name: 'lesson_id' }) lessonId: string;
  /** The class whose pages they are; null for those of the lesson. */
  @Column({ type: 'text', name: 'sitting_id', nullable: true }) sittingId: string | null;
  /** The explanation that it plays; null where it shows pages. */
  @Column({ type: 'text', name: 'explanation_id', nullable: true }) explanationId: string | null;
  @Column({ type: 'text' }) title: string;
  /** What the link ends with; nobody can guess it. */
  @Column({ type: 'text' }) token: string;
  @Column({ type: 'text', name: 'password_hash', nullable: true }) passwordHash: string | null;
  @Column({ type: 'integer', name: 'ends_at', nullable: true }) endsAt: number | null;
  @Column({ type: 'boolean', name: 'may_download' }) mayDownload: boolean;
  /** The stored pages, one HTML file, or the packed explanation; null until they have come. */
  @Column({ type: 'text', nullable: true }) sha256: string | null;
  @Column({ type: 'integer', name: 'created_at' }) createdAt: number;
}
