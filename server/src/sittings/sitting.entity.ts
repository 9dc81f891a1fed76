import type { Ideas, PenState, Rules, Scene, ShownCopy, StudentTable, Ways } from '@doodla/core';
import { Column, Entity, PrimaryColumn } from 'typeorm';

/** One teaching of a lesson to one class. Its marks are the log of the same id. */
@Entity('sitting')
export class Sitting {
  @PrimaryColumn({ type: 'text' }) id: string;
  @Column({ type: 'text', name: 'lesson_id' }) lessonId: string;
  @Column({ type: 'text' }) title: string;
  @Column({ type: 'text' }) code: string;
  /** The page that the class is on. */
  @Column({ type: 'text', name: 'page_id' }) pageId: string;
  @Column({ type: 'boolean', name: 'pens_up' }) pensUp: boolean;
  /** Whether nobody else may join. */
  @Column({ type: 'boolean' }) locked: boolean;
  /** Whether whoever joins waits for the teacher's nod. */
  @Column({ type: 'boolean' }) nodding: boolean;
  /** Of the password that one joins with, if there is one. */
  @Column({ type: 'text', name: 'password_hash', nullable: true }) passwordHash: string | null;
  /** The group that is taught, if it is one of the teacher's. */
  @Column({ type: 'text', name: 'group_id', nullable: true }) groupId: string | null;
  /** What students may do; null while it is as at first. */
  @Column({ type: 'simple-json', nullable: true }) rules: Rules | null;
  /** Pens of single students that are not as all pens are; null where there are none. */
  @Column({ type: 'simple-json', nullable: true }) pens: Record<string, PenState> | null;
  /** Pages that are not worked on together; null where there are none. */
  @Column({ type: 'simple-json', nullable: true }) ways: Ways | null;
  /** Groups of students; null where there are none. */
  @Column({ type: 'simple-json', nullable: true }) tables: StudentTable[] | null;
  /** The copy that is shown to all. */
  @Column({ type: 'simple-json', nullable: true }) copy: ShownCopy | null;
  /** Pages on which ideas are collected; null where there are none. */
  @Column({ type: 'simple-json', nullable: true }) ideas: Ideas | null;
  @Column({ type: 'integer', name: 'opened_at' }) openedAt: number;
  @Column({ type: 'integer', name: 'ended_at', nullable: true }) endedAt: number | null;
  /** What is set up for the class; null while nothing is. */
  @Column({ type: 'simple-json', nullable: true }) scene: Scene | null;
  /** Until when it is kept at least; null as long as the school keeps classes. */
  @Column({ type: 'integer', name: 'keep_until', nullable: true }) keepUntil: number | null;
  /** What it looks like on the start page; null until a browser has drawn that. */
  @Column({ type: 'text', name: 'cover_sha256', nullable: true }) coverSha256: string | null;
  /** When its marks were dropped; they can be brought back for a day. */
  @Column({ type: 'integer', name: 'dropped_at', nullable: true }) droppedAt: number | null;
}
