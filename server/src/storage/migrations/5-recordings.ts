import type { MigrationInterface, QueryRunner } from 'typeorm';
import { rebuildMaterial } from './materialTable.js';

/** Sound and video files among the materials. */
export class Recordings1700000000005 implements MigrationInterface {
  transaction = false as const;

  up(runner: QueryRunner): Promise<void> {
    return rebuildMaterial(runner, ['pdf', 'web', 'media'], { kept: ['notes'], added: ['mime TEXT'] });
  }

  down(runner: QueryRunner): Promise<void> {
    return rebuildMaterial(runner, ['pdf', 'web'], { kept: ['notes'] });
  }
}
