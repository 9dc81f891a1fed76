import { Global, Module } from '@nestjs/common';
import { TypeOrmModule } from '@nestjs/typeorm';
import { OfficeConverter } from '../documents/officeConverter.js';
import { StoredPicture } from '../pictures/picture.entity.js';
import type { Tables } from '../storage/tables.js';
import { DocumentIntake } from './documentIntake.js';
import { DocumentsController } from './documents.controller.js';
import { FileAccess } from './fileAccess.js';
import { Material } from './material.entity.js';
import { MaterialsController } from './materials.controller.js';
import { PagePictures } from './pagePictures.js';
import { MaterialsService } from './materials.service.js';
import { PdfReader } from './pdfReader.js';

export const MATERIALS_TABLES: Tables = { entities: [Material], migrations: [] };

/** Documents and other files that pages come from. */
@Global()
@Module({
  imports: [TypeOrmModule.forFeature([...MATERIALS_TABLES.entities, StoredPicture])],
  controllers: [DocumentsController, MaterialsController],
  providers: [DocumentIntake, FileAccess, MaterialsService, OfficeConverter, PagePictures, PdfReader],
  exports: [DocumentIntake, FileAccess, MaterialsService, OfficeConverter, PagePictures, PdfReader],
})
export class MaterialsModule {}
