import { Module } from '@nestjs/common';
import { TypeOrmModule } from '@nestjs/typeorm';
import { AnnotationsService } from './annotations/annotations.service.js';
import { Device } from './devices/device.entity.js';
import { DevicesController } from './devices/devices.controller.js';
import { DevicesService } from './devices/devices.service.js';
import { OfficeConverter } from './documents/officeConverter.js';
import { Lesson } from './lessons/lesson.entity.js';
import { LessonMaterial } from './lessons/lessonMaterial.entity.js';
import { LessonsController } from './lessons/lessons.controller.js';
import { LessonsService } from './lessons/lessons.service.js';
import { PageCopiesController } from './lessons/pageCopies.controller.js';
import { PageCopiesService } from './lessons/pageCopies.service.js';
import { PurgeService } from './lessons/purge.service.js';
import { AccessService } from './live/access.service.js';
import { ClassesService } from './live/classes.service.js';
import { ClassGateway } from './live/class.gateway.js';
import { LiveGateway } from './live/live.gateway.js';
import { LogsService } from './live/logs.service.js';
import { DocumentIntake } from './materials/documentIntake.js';
import { DocumentsController } from './materials/documents.controller.js';
import { FileAccess } from './materials/fileAccess.js';
import { Material } from './materials/material.entity.js';
import { MaterialsController } from './materials/materials.controller.js';
import { MaterialsService } from './materials/materials.service.js';
import { PdfReader } from './materials/pdfReader.js';
import { MediaController } from './media/media.controller.js';
import { StoredPicture } from './pictures/picture.entity.js';
import { PicturesController } from './pictures/pictures.controller.js';
import { StrangersService } from './reading/strangers.service.js';
import { ScreensGateway } from './screens/screens.gateway.js';
import { ScreensService } from './screens/screens.service.js';
import { ShelfController } from './shelf/shelf.controller.js';
import { ShelfPicture } from './shelf/shelfPicture.entity.js';
import { Sitting } from './sittings/sitting.entity.js';
import { SittingsController } from './sittings/sittings.controller.js';
import { ToLessonService } from './sittings/toLesson.service.js';
import { SittingMaterial } from './sittings/sittingMaterial.entity.js';
import { SeatsService } from './sittings/seats.service.js';
import { SittingsService } from './sittings/sittings.service.js';
import { WordsController } from './words/words.controller.js';
import { WordsService } from './words/words.service.js';
import { ReadWords } from './words/readWords.entity.js';
import { WebPagesController } from './webpages/webPages.controller.js';
import { WebPagesService } from './webpages/webPages.service.js';
import { Student } from './sittings/student.entity.js';

/** Lessons, materials, sittings and what happens live in them; they know each other too well to be apart. */
@Module({
  imports: [
    TypeOrmModule.forFeature([
      Lesson,
      LessonMaterial,
      Material,
      Sitting,
      Student,
      SittingMaterial,
      StoredPicture,
      ShelfPicture,
      Device,
      ReadWords,
    ]),
  ],
  controllers: [
    LessonsController,
    DocumentsController,
    MaterialsController,
    PageCopiesController,
    WebPagesController,
    PicturesController,
    ShelfController,
    SittingsController,
    DevicesController,
    MediaController,
    WordsController,
  ],
  providers: [
    LessonsService,
    PageCopiesService,
    PurgeService,
    MaterialsService,
    DocumentIntake,
    AnnotationsService,
    FileAccess,
    WordsService,
    OfficeConverter,
    StrangersService,
    WebPagesService,
    PdfReader,
    SeatsService,
    SittingsService,
    LogsService,
    AccessService,
    ClassesService,
    ClassGateway,
    LiveGateway,
    ScreensService,
    ScreensGateway,
    DevicesService,
    ToLessonService,
  ],
})
export class TeachingModule {}
