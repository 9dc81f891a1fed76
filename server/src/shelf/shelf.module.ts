import { Global, Module } from '@nestjs/common';
import { TypeOrmModule } from '@nestjs/typeorm';
import type { Tables } from '../storage/tables.js';
import { ShelfController } from './shelf.controller.js';
import { ShelfPicture } from './shelfPicture.entity.js';

export const SHELF_TABLES: Tables = { entities: [ShelfPicture], migrations: [] };

/** A teacher’s own pictures for stamping. */
@Global()
@Module({ imports: [TypeOrmModule.forFeature(SHELF_TABLES.entities)], controllers: [ShelfController] })
export class ShelfModule {}
