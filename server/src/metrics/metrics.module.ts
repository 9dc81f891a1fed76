import { Module } from '@nestjs/common';
import { MetricsController } from './metrics.controller.js';
import { MetricsService } from './metrics.service.js';

@Module({ controllers: [MetricsController], providers: [MetricsService] })
export class MetricsModule {}
