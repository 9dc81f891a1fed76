import { Column, Entity, PrimaryColumn } from 'typeorm';

/** Lets somebody become a teacher of the school, or one of them choose a new password; good once. */
@Entity('invitation')
export class Invitation {
  /** Of what the link ends with, which is kept nowhere. */
  @PrimaryColumn({ type: 'text', name: 'token_hash' }) tokenHash: string;
  /** Whose password is to be chosen anew; null for somebody new. */
  @Column({ type: 'text', name: 'teacher_id', nullable: true }) teacherId: string | null;
  @Column({ type: 'text' }) name: string;
  @Column({ type: 'text' }) email: string;
  @Column({ type: 'integer', name: 'expires_at' }) expiresAt: number;
}
