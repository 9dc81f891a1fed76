import { Column, Entity, PrimaryColumn } from 'typeorm';

/** Lets somebody become a teacher of a school, or look after the installation, or choose a new password; good once. */
@Entity('invitation')
export class Invitation {
  /** Of what the link ends with, which is kept nowhere. */
  @PrimaryColumn({ type: 'text', name: 'token_hash' }) tokenHash: string;
  /** The teacher whose password is to be chosen anew; null for somebody new. */
  @Column({ type: 'text', name: 'teacher_id', nullable: true }) teacherId: string | null;
  /** The school; null for looking after the installation. */
  @Column({ type: 'text', name: 'school_id', nullable: true }) schoolId: string | null;
  /** Whether they are to look after the school. */
  @Column({ type: 'boolean' }) admin: boolean;
  @Column({ type: 'text' }) name: string;
  @Column({ type: 'text' }) email: string;
  @Column({ type: 'integer', name: 'expires_at' }) expiresAt: number;
}
