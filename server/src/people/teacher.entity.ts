import { Column, Entity, PrimaryColumn } from 'typeorm';

@Entity('teacher')
export class Teacher {
  @PrimaryColumn({ type: 'text' }) id: string;
  @Column({ type: 'text' }) name: string;
  @Column({ type: 'text' }) email: string;
  @Column({ type: 'text', name: 'password_hash' }) passwordHash: string;
  /** Whether they look after the school. */
  @Column({ type: 'boolean' }) admin: boolean;
  @Column({ type: 'integer', name: 'created_at' }) createdAt: number;
}
