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

/** What a display's or pad's token says. */
export interface DeviceClaim {
  device: string;
  sitting: string;
}

/** What the token of a companion says that brings pages into a lesson. */
export interface LessonClaim {
  device: string;
  lesson: string;
}

export type Claim = StudentClaim | DeviceClaim | LessonClaim;

/** Signs and reads the tokens of students and devices (JSON Web Tokens, RFC 7519) with a key in the data folder, or that of the settings. */
@Injectable()
export class ClassTokens {
  private readonly key: Buffer;

  constructor(settings: Settings) {
    this.key =
      settings.tokenKey === undefined ? readOrMakeKey(settings.data) : Buffer.from(settings.tokenKey);
  }

  sign(claim: Claim): string {
    return jwt.sign(claim, this.key, { algorithm: 'HS256', expiresIn: '30d' });
  }

  /** The claim of a valid token, or undefined. */
  read(token: string): Claim | undefined {
    try {
      const claim = jwt.verify(token, this.key, { algorithms: ['HS256'] }) as Record<string, unknown>;
      const { student, device, sitting, lesson } = claim;
      if (typeof device === 'string' && typeof lesson === 'string') return { device, lesson };
      if (typeof sitting !== 'string') return undefined;
      if (typeof student === 'string') return { student, sitting };
      return typeof device === 'string' ? { device, sitting } : undefined;
    } catch {
      // A token that is no token, or an old one, lets nobody in.
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
