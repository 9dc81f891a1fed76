import { Body, Controller, Get, HttpCode, Param, Put, UseGuards } from '@nestjs/common';
import { InjectRepository } from '@nestjs/typeorm';
import { Repository } from 'typeorm';
import { Problem, notFound } from '../http/problem.js';
import { PreferenceDto } from './people.dto.js';
import { Preference } from './preference.entity.js';
import type { Teacher } from './teacher.entity.js';
import { CurrentTeacher, TeacherGuard } from './visitor.guard.js';

/** What can be set, and how long it may be as JSON; anything else is refused, so that this is no general store. */
const LENGTHS: ReadonlyMap<string, number> = new Map([
  ['shortcuts', 10_000],
  ['hand', 90_000],
]);

/** What a teacher has set for themselves, kept from one computer to the next. */
@Controller('api/preferences')
@UseGuards(TeacherGuard)
export class PreferencesController {
  constructor(@InjectRepository(Preference) private readonly preferences: Repository<Preference>) {}

  @Get(':name')
  async get(@CurrentTeacher() teacher: Teacher, @Param('name') name: string): Promise<{ value: object }> {
    lengthOf(name);
    const stored = await this.preferences.findOneBy({ teacherId: teacher.id, name });
    return { value: stored?.value ?? {} };
  }

  @Put(':name')
  @HttpCode(204)
  async set(
    @CurrentTeacher() teacher: Teacher,
    @Param('name') name: string,
    @Body() { value }: PreferenceDto,
  ): Promise<void> {
    if (JSON.stringify(value).length > lengthOf(name))
      throw new Problem(413, 'setting-too-large', 'This is too much to be kept as a setting.');
    await this.preferences.upsert({ teacherId: teacher.id, name, value }, ['teacherId', 'name']);
  }
}

function lengthOf(name: string): number {
  const length = LENGTHS.get(name);
  if (length === undefined) throw notFound('This setting');
  return length;
}
