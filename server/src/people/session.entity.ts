import { Column, Entity, PrimaryColumn } from 'typeorm';

/** A teacher's signed-in browser. Only a hash of its token is kept. */
@Entity('session')
export class Session {
  @PrimaryColumn({ type: 'text', name: 'token_hash' }) tokenHash: string;
  @Column({ type: 'text', name: 'teacher_id' }) teacherId: string;
  @Column({ type: 'integer', name: 'expires_at' }) expiresAt: number;
}
