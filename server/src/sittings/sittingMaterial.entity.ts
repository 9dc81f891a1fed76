import { Entity, PrimaryColumn } from 'typeorm';

/** A document, web page or recording that was brought in during a class and is that class's alone. */
@Entity('sitting_material')
export class SittingMaterial {
  @PrimaryColumn({ type: 'text', name: 'sitting_id' }) sittingId: string;
  @PrimaryColumn({ type: 'text', name: 'material_id' }) materialId: string;
}
