import { Global, Module } from '@nestjs/common';
import { TypeOrmModule } from '@nestjs/typeorm';
import type { Tables } from '../storage/tables.js';
import { ClassTokens } from './classTokens.js';
import { Operator } from './operator.entity.js';
import { OperatorSession } from './operatorSession.entity.js';
import { OperatorsService } from './operators.service.js';
import { PeopleController } from './people.controller.js';
import { PeopleService } from './people.service.js';
import { Preference } from './preference.entity.js';
import { PreferencesController } from './preferences.controller.js';
import { Session } from './session.entity.js';
import { SessionCookie } from './sessionCookie.js';
import { SignInService } from './signIn.service.js';
import { Teacher } from './teacher.entity.js';
import { VisitorsService } from './visitors.service.js';

export const PEOPLE_TABLES: Tables = {
  entities: [Operator, OperatorSession, Preference, Session, Teacher],
  migrations: [],
};

/** Teachers, and by what everybody is known. */
@Global()
@Module({
  imports: [TypeOrmModule.forFeature(PEOPLE_TABLES.entities)],
  controllers: [PeopleController, PreferencesController],
  providers: [ClassTokens, OperatorsService, PeopleService, SessionCookie, SignInService, VisitorsService],
  exports: [ClassTokens, OperatorsService, PeopleService, SessionCookie, VisitorsService],
})
export class PeopleModule {}
