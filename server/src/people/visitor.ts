import type { StudentClaim } from './studentTokens.js';
import type { Teacher } from './teacher.entity.js';

/** Who sends a request: a signed-in teacher, a student with a token, or nobody known. */
export type Visitor =
  { role: 'teacher'; teacher: Teacher } | ({ role: 'student' } & StudentClaim) | { role: 'nobody' };
