import { Injectable } from '@nestjs/common';
import type { InstallationFigures, SchoolFigures } from '@doodla/core';
import { failures } from '../http/failures.js';
import { Leases } from '../processes/leases.js';
import { SharedLeases } from '../processes/sharedLeases.js';
import { BYTES_OF_SCHOOL } from '../schools/room.service.js';
import type { School } from '../schools/school.entity.js';
import { SchoolsService } from '../schools/schools.service.js';
import { Database } from '../storage/database.js';
import { DiskSpace } from '../storage/diskSpace.js';

/** How long back classes are counted. */
const LATELY_MS = 30 * 24 * 3600 * 1000;

const OWN = 'FROM teacher WHERE school_id = tenant.id';
const LESSONS = `FROM lesson JOIN teacher ON teacher.id = teacher_id
  WHERE school_id = tenant.id AND lesson.deleted_at IS NULL`;
const SITTINGS = `FROM sitting JOIN lesson ON lesson.id = lesson_id JOIN teacher ON teacher.id = teacher_id`;

/** What is counted of a school. */
type Row = Pick<
  SchoolFigures,
  'id' | 'teachers' | 'admins' | 'lessons' | 'classes' | 'students' | 'running' | 'usedAt' | 'bytes'
>;

/** Figures of the installation and its schools: how many and how much, and nothing of what anybody wrote, and nobody's name. */
@Injectable()
export class FiguresService {
  constructor(
    private readonly schools: SchoolsService,
    private readonly database: Database,
    private readonly disk: DiskSpace,
    private readonly leases: Leases,
  ) {}

  async now(): Promise<InstallationFigures> {
    const { leases } = this;
    return {
      free: await this.disk.free(),
      failures: failures.count,
      uptimeSeconds: Math.floor(process.uptime()),
      processes: leases instanceof SharedLeases ? await leases.addresses() : [],
      schools: await this.ofSchools(),
    };
  }

  private async ofSchools(): Promise<SchoolFigures[]> {
    const since = Date.now() - LATELY_MS;
    const rows = await this.database.all<Row>(
      `SELECT tenant.id,
         (SELECT count(*) ${OWN}) AS teachers,
         (SELECT count(*) ${OWN} AND admin) AS admins,
         (SELECT count(*) ${LESSONS}) AS lessons,
         (SELECT count(*) ${SITTINGS} WHERE school_id = tenant.id AND opened_at > ?) AS classes,
         (SELECT count(*) FROM student JOIN sitting ON sitting.id = sitting_id JOIN lesson ON lesson.id = lesson_id
            JOIN teacher ON teacher.id = teacher_id WHERE school_id = tenant.id AND opened_at > ?) AS students,
         (SELECT count(*) ${SITTINGS} WHERE school_id = tenant.id AND ended_at IS NULL AND dropped_at IS NULL
            AND lesson.deleted_at IS NULL) AS running,
         (SELECT max(used_at) ${LESSONS}) AS "usedAt",
         ${BYTES_OF_SCHOOL} AS bytes
       FROM tenant`,
      [since, since],
    );
    const figures = new Map(rows.map((row) => [row.id, row]));
    const all = await this.schools.all();
    return all.flatMap((school) => {
      const counted = figures.get(school.id);
      return counted ? [{ ...told(school), ...counted, bytes: Number(counted.bytes) }] : [];
    });
  }
}

function told(school: School) {
  const { name, slug, createdAt, closedAt, maxBytes, maxTeachers } = school;
  const { oidcIssuer, oidcClientId, oidcTrustEmail } = school;
  const signIn =
    oidcIssuer !== null && oidcClientId !== null
      ? { issuer: oidcIssuer, clientId: oidcClientId, trustEmail: oidcTrustEmail }
      : null;
  return { name, slug, createdAt, closedAt, maxBytes, maxTeachers, signIn };
}
