import { Global, Module } from '@nestjs/common';
import { MediaController } from './media.controller.js';

/** Sound and video files. */
@Global()
@Module({ controllers: [MediaController] })
export class MediaModule {}
