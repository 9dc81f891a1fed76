import { Module } from '@nestjs/common';
import { TypeOrmModule } from '@nestjs/typeorm';
import { ClassGroup } from '../groups/group.entity.js';
import { IdeaVote } from '../ideas/ideaVote.entity.js';
import { StoredPicture } from '../pictures/picture.entity.js';
import { AskedPoll } from '../polls/poll.entity.js';
import { GivenAnswer } from '../polls/pollAnswer.entity.js';
import { Sitting } from '../sittings/sitting.entity.js';
import { Student } from '../sittings/student.entity.js';
import { SaidWords } from '../talk/chatMessage.entity.js';
import { PrivacyController } from './privacy.controller.js';
import { PrivacyService } from './privacy.service.js';

/** What is kept about one student. */
@Module({
  imports: [
    TypeOrmModule.forFeature([
      ...[AskedPoll, ClassGroup, GivenAnswer, IdeaVote, SaidWords, Sitting, StoredPicture, Student],
    ]),
  ],
  controllers: [PrivacyController],
  providers: [PrivacyService],
})
export class PrivacyModule {}
