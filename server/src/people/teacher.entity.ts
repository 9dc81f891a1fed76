import { Column, Entity, PrimaryColumn } from 'typeorm';

@Entity('teacher')
export class Teacher {
  @PrimaryColumn({ type: 'text' }) id: string;
  @Column({ type: 'text', name: 'school_id' }) schoolId: string;
  @Column({ type: 'text' }) name: string;
  @Column({ type: 'text' }) email: string;
  @Column({ type: 'text', name: 'password_hash' }) passwordHash: string;
  /** By what the school's own sign-in knows them: issuer and subject; null where they have never come that way. */
  @Column({ type: 'text', nullable: true }) subject: string | null;
  /** Whether they look after the school. */
  @Column({ type: 'boolean' }) admin: boolean;
  @Column({ type: 'integer', name: 'created_at' }) createdAt: number;
}
