import type { ShelfKind } from '@doodla/core';
import { Column, Entity, PrimaryColumn } from 'typeorm';
import type { PictureType } from '../pictures/picture.entity.js';

/** Marks or pages that a teacher keeps for use in any lesson. */
@Entity('shelf_thing')
export class StoredThing {
  @PrimaryColumn({ type: 'text' }) id: string;
  @Column({ type: 'text', name: 'teacher_id' }) teacherId: string;
  @Column({ type: 'text' }) kind: ShelfKind;
  @Column({ type: 'text' }) title: string;
  /** Empty where it lies in no folder. */
  @Column({ type: 'text' }) folder: string;
  /** What is typed on it, by which it is found beside its name. */
  @Column({ type: 'text' }) words: string;
  /** How many marks or pages it is. */
  @Column({ type: 'integer' }) count: number;
  @Column({ type: 'boolean' }) shared: boolean;
  @Column({ type: 'text', name: 'preview_sha256', nullable: true }) previewSha256: string | null;
  /** A packed `ShelfContent`. */
  // TypeORM has no word for bytes that both databases know; of this type it passes them on as they are.
  @Column({ type: 'text', select: false }) content: Buffer;
  @Column({ type: 'integer', name: 'created_at' }) createdAt: number;
  @Column({ type: 'integer', name: 'deleted_at', nullable: true }) deletedAt: number | null;
}

/** A picture that is part of a thing. */
@Entity('shelf_thing_picture')
export class ThingPicture {
  @PrimaryColumn({ type: 'text' }) id: string;
  @Column({ type: 'text', name: 'thing_id' }) thingId: string;
  @Column({ type: 'text' }) type: PictureType;
  @Column({ type: 'text' }) sha256: string;
  @Column({ type: 'integer' }) bytes: number;
}

/** A document, web page or recording that pages of a thing come from. */
@Entity('shelf_thing_material')
export class ThingMaterial {
  @PrimaryColumn({ type: 'text', name: 'thing_id' }) thingId: string;
  @PrimaryColumn({ type: 'text', name: 'material_id' }) materialId: string;
}
