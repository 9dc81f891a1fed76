import { Global, Module } from '@nestjs/common';
import { TypeOrmModule } from '@nestjs/typeorm';
import type { Tables } from '../storage/tables.js';
import { StoredPicture } from './picture.entity.js';
import { PicturesController } from './pictures.controller.js';

export const PICTURES_TABLES: Tables = { entities: [StoredPicture], migrations: [] };

/** Pictures on pages. */
@Global()
@Module({ imports: [TypeOrmModule.forFeature(PICTURES_TABLES.entities)], controllers: [PicturesController] })
export class PicturesModule {}
