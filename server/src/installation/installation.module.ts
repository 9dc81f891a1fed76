import { Module } from '@nestjs/common';
import { TypeOrmModule } from '@nestjs/typeorm';
import { Teacher } from '../people/teacher.entity.js';
import { SchoolModule } from '../school/school.module.js';
import { FiguresService } from './figures.service.js';
import { InstallationController } from './installation.controller.js';
import { InstallationService } from './installation.service.js';

/** The installation, for whoever looks after it: its schools from outside. */
@Module({
  imports: [TypeOrmModule.forFeature([Teacher]), SchoolModule],
  controllers: [InstallationController],
  providers: [FiguresService, InstallationService],
})
export class InstallationModule {}
