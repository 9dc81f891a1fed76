import { Global, Module } from '@nestjs/common';
import { TypeOrmModule } from '@nestjs/typeorm';
import { Material } from '../materials/material.entity.js';
import { LivePagesController } from './livePages.controller.js';
import { WebPagesController } from './webPages.controller.js';
import { WebPagesService } from './webPages.service.js';

/** Copies of web pages. */
@Global()
@Module({
  imports: [TypeOrmModule.forFeature([Material])],
  controllers: [WebPagesController, LivePagesController],
  providers: [WebPagesService],
  exports: [WebPagesService],
})
export class WebPagesModule {}
