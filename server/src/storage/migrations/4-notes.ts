import type { MigrationInterface, QueryRunner } from 'typeorm';
import { rebuildMaterial } from './materialTable.js';

/** Notes beside pages, and web pages among the materials. */
export class Notes1700000000004 implements MigrationInterface {
  transaction = false as const;

  up(runner: QueryRunner): Promise<void> {
    return rebuildMaterial(runner, ['pdf', 'web'], { added: ['notes TEXT'] });
  }

  down(runner: QueryRunner): Promise<void> {
    return rebuildMaterial(runner, ['pdf'], {});
  }
}
