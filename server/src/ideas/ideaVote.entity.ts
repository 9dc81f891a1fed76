import { Column, Entity, PrimaryColumn } from 'typeorm';

/** A student's vote for a note. */
@Entity('idea_vote')
export class IdeaVote {
  @PrimaryColumn({ type: 'text', name: 'sitting_id' }) sittingId: string;
  @PrimaryColumn({ type: 'text', name: 'mark_id' }) markId: string;
  @PrimaryColumn({ type: 'text', name: 'student_id' }) studentId: string;
  @Column({ type: 'text', name: 'page_id' }) pageId: string;
}
