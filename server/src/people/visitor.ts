import type { DeviceClaim, LessonClaim, StudentClaim } from './classTokens.js';
import type { Teacher } from './teacher.entity.js';

/** Who sends a request: a signed-in teacher, a student, a display or pad with its token, a companion of a lesson, or nobody known. */
export type Visitor =
  | { role: 'teacher'; teacher: Teacher; session: string }
  | ({ role: 'student' } & StudentClaim)
  | ({ role: 'device' } & DeviceClaim)
  | ({ role: 'helper' } & LessonClaim)
  | { role: 'nobody' };
