import { Column, Entity, PrimaryColumn } from 'typeorm';
import type { PictureType } from '../pictures/picture.entity.js';

/** A picture that a teacher keeps at hand, to be used as a stamp in any lesson. */
@Entity('shelf_picture')
export class ShelfPicture {
  @PrimaryColumn({ type: 'text' }) id: string;
  @Column({ type: 'text', name: 'teacher_id' }) teacherId: string;
  @Column({ type: 'text' }) type: PictureType;
  @Column({ type: 'text' }) sha256: string;
  @Column({ type: 'integer', name: 'created_at' }) createdAt: number;
}
