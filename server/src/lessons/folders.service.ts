import { Injectable } from '@nestjs/common';
import { InjectRepository } from '@nestjs/typeorm';
import type { Folder, FolderRequest } from '@doodla/core';
import { randomUUID } from 'node:crypto';
import { Repository } from 'typeorm';
import { notFound, Problem } from '../http/problem.js';
import { Database } from '../storage/database.js';
import { LessonFolder } from './folder.entity.js';

const MOST_FOLDERS = 500;

/** The folders of a teacher's lessons. */
@Injectable()
export class FoldersService {
  constructor(
    @InjectRepository(LessonFolder) private readonly folders: Repository<LessonFolder>,
    private readonly database: Database,
  ) {}

  async list(teacherId: string): Promise<Folder[]> {
    const rows = await this.folders.find({ where: { teacherId }, order: { title: 'ASC' } });
    return rows.map(({ id, title, parentId }) => ({ id, title, parent: parentId }));
  }

  /** Throws Problem where it is not the teacher's. */
  async own(teacherId: string, id: string): Promise<LessonFolder> {
    const folder = await this.folders.findOneBy({ id, teacherId });
    if (!folder) throw notFound('This folder');
    return folder;
  }

  /** Throws Problem. */
  async create(teacherId: string, { title, parent }: FolderRequest): Promise<Folder> {
    if (parent !== null) await this.own(teacherId, parent);
    if ((await this.folders.countBy({ teacherId })) >= MOST_FOLDERS)
      throw new Problem(409, 'too-many-folders', 'There are 500 folders already. Please delete one first.');
    const folder = { id: randomUUID(), teacherId, parentId: parent, title, createdAt: Date.now() };
    await this.folders.insert(folder);
    return { id: folder.id, title, parent };
  }

  /** Another name, another place. Throws Problem where it would lie within itself. */
  async change(teacherId: string, id: string, { title, parent }: FolderRequest): Promise<void> {
    await this.own(teacherId, id);
    for (let above = parent; above !== null; above = (await this.own(teacherId, above)).parentId)
      if (above === id)
        throw new Problem(
          409,
          'folder-in-itself',
          'A folder cannot lie in itself. Please choose another place.',
        );
    await this.folders.update({ id }, { title, parentId: parent });
  }

  /** Takes a folder away; what is in it moves to where the folder was. Throws Problem. */
  async remove(teacherId: string, id: string): Promise<void> {
    const { parentId } = await this.own(teacherId, id);
    await this.database.together(
      ['UPDATE lesson SET folder_id = ? WHERE folder_id = ?', [parentId, id]],
      ['UPDATE lesson_folder SET parent_id = ? WHERE parent_id = ?', [parentId, id]],
      ['DELETE FROM lesson_folder WHERE id = ?', [id]],
    );
  }
}
