import { Column, Entity, PrimaryGeneratedColumn } from 'typeorm';

/** A class came to a page. */
@Entity('class_turn')
export class ClassTurn {
  /** 1, 2, 3 … over all classes. */
  @PrimaryGeneratedColumn({ type: 'integer' }) id: number;
  @Column({ type: 'text', name: 'sitting_id' }) sittingId: string;
  /** Milliseconds since 1970-01-01 UTC. */
  @Column({ type: 'integer' }) at: number;
  @Column({ type: 'text', name: 'page_id' }) pageId: string;
  /** What its teacher calls the chapter that begins with it; null where it is called as the page is. */
  @Column({ type: 'text', nullable: true }) name: string | null;
}
