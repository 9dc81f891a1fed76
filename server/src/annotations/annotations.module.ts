import { Global, Module } from '@nestjs/common';
import { AnnotationsController } from './annotations.controller.js';
import { AnnotationsService } from './annotations.service.js';

/** What others have written on documents. */
@Global()
@Module({
  controllers: [AnnotationsController],
  providers: [AnnotationsService],
  exports: [AnnotationsService],
})
export class AnnotationsModule {}
