import { Column, Entity, PrimaryColumn } from 'typeorm';

/** A signed-in browser of somebody who looks after the installation. Only a hash of its token is kept. */
@Entity('operator_session')
export class OperatorSession {
  @PrimaryColumn({ type: 'text', name: 'token_hash' }) tokenHash: string;
  @Column({ type: 'text', name: 'operator_id' }) operatorId: string;
  @Column({ type: 'integer', name: 'expires_at' }) expiresAt: number;
}
