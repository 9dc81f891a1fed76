import { Injectable } from '@nestjs/common';
import { randomBytes } from 'node:crypto';
import { mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import jwt from 'jsonwebtoken';
import { Settings } from '../settings/settings.js';

/** What a student's token says: who, and in which sitting. It is good for that sitting only. */
export interface StudentClaim {
  student: string;
  sitting: string;
}

/** Signs and reads students' tokens (JSON Web Tokens, RFC 7519) with a key kept in the data folder. */
@Injectable()
export class StudentTokens {
  private readonly key: Buffer;

  constructor(settings: Settings) {
    this.key = readOrMakeKey(settings.data);
  }

  sign(claim: StudentClaim): string {
    return jwt.sign(claim, this.key, { algorithm: 'HS256', expiresIn: '30d' });
  }

  /** The claim of a valid token, or undefined. */
  read(token: string): StudentClaim | undefined {
    try {
      const claim = jwt.verify(token, this.key, { algorithms: ['HS256'] }) as Partial<StudentClaim>;
      if (typeof claim.student !== 'string' || typeof claim.sitting !== 'string') return undefined;
      return { student: claim.student, sitting: claim.sitting };
    } catch {
      return undefined;
    }
  }
}

function readOrMakeKey(folder: string): Buffer {
  mkdirSync(folder, { recursive: true });
  const path = join(folder, 'token.key');
  try {
    writeFileSync(path, randomBytes(32), { flag: 'wx', mode: 0o600 });
  } catch (error) {
    if ((error as NodeJS.ErrnoException).code !== 'EEXIST') throw error;
  }
  return readFileSync(path);
}
