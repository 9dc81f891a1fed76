import { Global, Module } from '@nestjs/common';
import { StrangersService } from './strangers.service.js';

/** Reading files that nobody here wrote, beside the server. */
@Global()
@Module({ providers: [StrangersService], exports: [StrangersService] })
export class ReadingModule {}
