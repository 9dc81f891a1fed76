import { AnnotationsModule } from './annotations/annotations.module.js';
import { ArchiveModule } from './archive/archive.module.js';
import { DEVICES_TABLES, DevicesModule } from './devices/devices.module.js';
import { EXPLANATIONS_TABLES, ExplanationsModule } from './explanations/explanations.module.js';
import { GROUPS_TABLES, GroupsModule } from './groups/groups.module.js';
import { HISTORY_TABLES, HistoryModule } from './history/history.module.js';
import { IDEAS_TABLES, IdeasModule } from './ideas/ideas.module.js';
import { InstallationModule } from './installation/installation.module.js';
import { LESSONS_TABLES, LessonsModule } from './lessons/lessons.module.js';
import { LINKS_TABLES, LinksModule } from './links/links.module.js';
import { LiveModule } from './live/live.module.js';
import { MATERIALS_TABLES, MaterialsModule } from './materials/materials.module.js';
import { MediaModule } from './media/media.module.js';
import { MetricsModule } from './metrics/metrics.module.js';
import { PEOPLE_TABLES, PeopleModule } from './people/people.module.js';
import { PICTURES_TABLES, PicturesModule } from './pictures/pictures.module.js';
import { POLLS_TABLES, PollsModule } from './polls/polls.module.js';
import { PROCESSES_TABLES, ProcessesModule } from './processes/processes.module.js';
import { PrivacyModule } from './privacy/privacy.module.js';
import { ReadingModule } from './reading/reading.module.js';
import { SCHOOL_TABLES, SchoolModule } from './school/school.module.js';
import { SCHOOLS_TABLES, SchoolsModule } from './schools/schools.module.js';
import { ScreensModule } from './screens/screens.module.js';
import { SEARCH_TABLES, SearchModule } from './search/search.module.js';
import { SHELF_TABLES, ShelfModule } from './shelf/shelf.module.js';
import { SITTINGS_TABLES, SittingsModule } from './sittings/sittings.module.js';
import type { Tables } from './storage/tables.js';
import { TALK_TABLES, TalkModule } from './talk/talk.module.js';
import { WebPagesModule } from './webpages/webPages.module.js';
import { WORDS_TABLES, WordsModule } from './words/words.module.js';

/** Everything the server is about, each with what it keeps. Their services know each other, so all are global. */
const SUBJECTS: readonly { module: new () => object; tables?: Tables }[] = [
  { module: ProcessesModule, tables: PROCESSES_TABLES },
  { module: SchoolsModule, tables: SCHOOLS_TABLES },
  { module: PeopleModule, tables: PEOPLE_TABLES },
  { module: ReadingModule },
  { module: MaterialsModule, tables: MATERIALS_TABLES },
  { module: LessonsModule, tables: LESSONS_TABLES },
  { module: GroupsModule, tables: GROUPS_TABLES },
  { module: SittingsModule, tables: SITTINGS_TABLES },
  { module: LiveModule },
  { module: HistoryModule, tables: HISTORY_TABLES },
  { module: ExplanationsModule, tables: EXPLANATIONS_TABLES },
  { module: IdeasModule, tables: IDEAS_TABLES },
  { module: PollsModule, tables: POLLS_TABLES },
  { module: TalkModule, tables: TALK_TABLES },
  { module: DevicesModule, tables: DEVICES_TABLES },
  { module: ScreensModule },
  { module: PicturesModule, tables: PICTURES_TABLES },
  { module: ShelfModule, tables: SHELF_TABLES },
  { module: MediaModule },
  { module: WebPagesModule },
  { module: WordsModule, tables: WORDS_TABLES },
  { module: AnnotationsModule },
  { module: ArchiveModule },
  { module: SearchModule, tables: SEARCH_TABLES },
  { module: LinksModule, tables: LINKS_TABLES },
  { module: PrivacyModule },
  { module: SchoolModule, tables: SCHOOL_TABLES },
  { module: InstallationModule },
  { module: MetricsModule },
];

export const MODULES = SUBJECTS.map(({ module }) => module);

/** All that is kept in the database. */
export const TABLES: Tables = {
  entities: SUBJECTS.flatMap(({ tables }) => tables?.entities ?? []),
  migrations: SUBJECTS.flatMap(({ tables }) => tables?.migrations ?? []),
};
