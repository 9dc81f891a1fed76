import { Column, Entity, PrimaryColumn } from 'typeorm';

/** Somebody who looks after the installation and its schools. No teacher: nothing of a school is theirs to see. */
@Entity('operator')
export class Operator {
  @PrimaryColumn({ type: 'text' }) id: string;
  @Column({ type: 'text' }) name: string;
  @Column({ type: 'text' }) email: string;
  @Column({ type: 'text', name: 'password_hash' }) passwordHash: string;
  @Column({ type: 'integer', name: 'created_at' }) createdAt: number;
}
