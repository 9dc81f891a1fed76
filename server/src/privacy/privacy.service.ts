import { Injectable } from '@nestjs/common';
import { InjectRepository } from '@nestjs/typeorm';
import type { Mark, StudentData, StudentTrace } from '@doodla/core';
import { isOfStudent, isSameName } from '@doodla/core';
import { In, Repository } from 'typeorm';
import { ClassGroup } from '../groups/group.entity.js';
import { Problem } from '../http/problem.js';
import { IdeaVote } from '../ideas/ideaVote.entity.js';
import { LinksService } from '../links/links.service.js';
import { LogsService } from '../live/logs.service.js';
import { StoredPicture } from '../pictures/picture.entity.js';
import { AskedPoll } from '../polls/poll.entity.js';
import { GivenAnswer } from '../polls/pollAnswer.entity.js';
import { SearchIndexService } from '../search/searchIndex.service.js';
import { Sitting } from '../sittings/sitting.entity.js';
import { SittingsService } from '../sittings/sittings.service.js';
import { Student } from '../sittings/student.entity.js';
import { SaidWords } from '../talk/chatMessage.entity.js';

/** A student in a class, by the name that they came in with. */
interface Seat {
  student: Student;
  sitting: Sitting;
}

/** All that is kept about one student in a teacher's classes: told, handed over, taken away. */
@Injectable()
export class PrivacyService {
  constructor(
    private readonly logs: LogsService,
    private readonly classes: SittingsService,
    private readonly index: SearchIndexService,
    private readonly links: LinksService,
    @InjectRepository(Sitting) private readonly sittings: Repository<Sitting>,
    @InjectRepository(Student) private readonly students: Repository<Student>,
    @InjectRepository(SaidWords) private readonly said: Repository<SaidWords>,
    @InjectRepository(AskedPoll) private readonly polls: Repository<AskedPoll>,
    @InjectRepository(GivenAnswer) private readonly answers: Repository<GivenAnswer>,
    @InjectRepository(IdeaVote) private readonly votes: Repository<IdeaVote>,
    @InjectRepository(StoredPicture) private readonly pictures: Repository<StoredPicture>,
    @InjectRepository(ClassGroup) private readonly groups: Repository<ClassGroup>,
  ) {}

  /** The classes in which somebody of a name was, the last first, and how much of them there is in each. */
  async traces(teacherId: string, name: string): Promise<StudentTrace[]> {
    const traces: StudentTrace[] = [];
    for (const { student, sitting } of await this.seats(teacherId, name)) {
      const { id, title, openedAt, endedAt } = sitting;
      const marks = (await this.marksOf(sitting.id, student.id)).length;
      const words = await this.said.countBy({ sittingId: id, author: student.id });
      traces.push({
        sitting: id,
        title,
        openedAt,
        isOpen: endedAt === null,
        name: student.name,
        marks,
        words,
      });
    }
    return traces;
  }

  /** Everything about somebody, class by class. */
  async data(teacherId: string, name: string): Promise<StudentData[]> {
    const all: StudentData[] = [];
    for (const { student, sitting } of await this.seats(teacherId, name)) {
      const where = { sittingId: sitting.id, author: student.id };
      const said = await this.said.find({ where, order: { at: 'ASC' } });
      const given = await this.answers.findBy({ studentId: student.id });
      const asked = await this.polls.findBy({ id: In(given.map(({ pollId }) => pollId)) });
      const questions = new Map(asked.map(({ id, body }) => [id, body.question]));
      const votes = await this.votes.findBy({ sittingId: sitting.id, studentId: student.id });
      all.push({
        class: { title: sitting.title, openedAt: sitting.openedAt, endedAt: sitting.endedAt },
        name: student.name,
        joinedAt: student.joinedAt,
        marks: await this.marksOf(sitting.id, student.id),
        chat: said.map(({ words, at }) => ({ words, at })),
        answers: given.map(({ pollId, value, at }) => ({ question: questions.get(pollId) ?? '', value, at })),
        votes: votes.map(({ markId }) => markId),
      });
    }
    return all;
  }

  /**
   * Takes everything about somebody out of all of a teacher's classes and groups: what they wrote, said and answered, in
   * earlier states too. What others wrote stays. Returns from how many classes. Throws Problem while one of them goes on.
   */
  async forget(teacherId: string, name: string): Promise<number> {
    const seats = await this.seats(teacherId, name);
    const open = seats.find(({ sitting }) => sitting.endedAt === null);
    if (open)
      throw new Problem(
        409,
        'student-in-open-class',
        'This student is in a class that has not ended. Please end it first; nothing was deleted.',
      );
    for (const seat of seats) await this.forgetSeat(seat);
    await this.forgetInGroups(teacherId, name);
    return seats.length;
  }

  private async forgetSeat({ student, sitting }: Seat): Promise<void> {
    const own = { sittingId: sitting.id, author: student.id };
    for (const page of await this.logs.forget(sitting.id, student.id)) this.index.mark(sitting.id, page);
    await this.said.delete(own);
    await this.answers.delete({ studentId: student.id });
    await this.votes.delete({ sittingId: sitting.id, studentId: student.id });
    await this.pictures.delete(own);
    // What links and pictures show was made before, and cannot be changed.
    await this.links.removeOf(sitting.id);
    await this.classes.setCover(sitting.id, null);
    const tables = sitting.tables?.map(({ id, students }) => ({
      id,
      students: students.filter((each) => each !== student.id),
    }));
    if (tables) await this.classes.setTables(sitting.id, tables);
    await this.classes.removeStudent(sitting.id, student.id);
  }

  private async forgetInGroups(teacherId: string, name: string): Promise<void> {
    for (const { id, names } of await this.groups.findBy({ teacherId })) {
      const others = names.filter((each) => !isSameName(each, name));
      if (others.length < names.length) await this.groups.update({ id }, { names: others });
    }
  }

  private async marksOf(sittingId: string, student: string): Promise<Mark[]> {
    return (await (await this.logs.open(sittingId)).allMarks()).filter((mark) => isOfStudent(mark, student));
  }

  private async seats(teacherId: string, name: string): Promise<Seat[]> {
    const all = await this.sittings
      .createQueryBuilder('sitting')
      .innerJoin('lesson', 'lesson', 'lesson.id = sitting.lesson_id')
      .where('lesson.teacher_id = :teacherId', { teacherId })
      .orderBy('sitting.opened_at', 'DESC')
      .getMany();
    const byId = new Map(all.map((sitting) => [sitting.id, sitting]));
    const students = await this.students.findBy({ sittingId: In([...byId.keys()]) });
    return students
      .filter((student) => isSameName(student.name, name))
      .map((student) => ({ student, sitting: byId.get(student.sittingId)! }))
      .sort((a, b) => b.sitting.openedAt - a.sitting.openedAt);
  }
}
