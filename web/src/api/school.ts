import type {
  AcceptRequest,
  AdminRequest,
  Colleague,
  GiveRequest,
  InvitationDoor,
  InvitationReply,
  TeacherInviteRequest,
  LeaveRequest,
  SchoolHealth,
  SchoolLimits,
  SchoolNameRequest,
  SchoolTeacher,
} from '@doodla/core';
import { queryOptions } from '@tanstack/react-query';
import { request } from './http';

export const teachersQuery = queryOptions({
  queryKey: ['school', 'teachers'],
  queryFn: () => request<SchoolTeacher[]>('GET', '/api/school/teachers'),
});
export const schoolHealthQuery = queryOptions({
  queryKey: ['school', 'health'],
  queryFn: () => request<SchoolHealth>('GET', '/api/school/health'),
  staleTime: 0,
});
export const colleaguesQuery = queryOptions({
  queryKey: ['school', 'colleagues'],
  queryFn: () => request<Colleague[]>('GET', '/api/school/colleagues'),
});

/** Invites somebody to be a teacher of the school. */
export const inviteTeacher = (who: TeacherInviteRequest) =>
  request<InvitationReply>('POST', '/api/school/invitations', who);
export const setSchoolName = (name: string) =>
  request<void>('PUT', '/api/school/name', { name } satisfies SchoolNameRequest);
/** Sets how much may be brought in, and how long classes are kept. */
export const setLimits = (limits: SchoolLimits) => request<void>('PUT', '/api/school/limits', limits);
/** Makes a link by which a teacher chooses a new password. */
export const resetPassword = (id: string) =>
  request<InvitationReply>('POST', `/api/school/teachers/${id}/reset`);
export const setAdmin = (id: string, admin: boolean) =>
  request<void>('PATCH', `/api/school/teachers/${id}`, { admin } satisfies AdminRequest);
/** Takes a teacher out; what is theirs goes to another one. */
export const takeTeacherOut = (id: string, to: string) =>
  request<void>('POST', `/api/school/teachers/${id}/leave`, { to } satisfies LeaveRequest);
/** Gives a colleague a copy of a lesson. */
export const giveLesson = (lesson: string, to: string) =>
  request<void>('POST', `/api/lessons/${lesson}/copies-for`, { to } satisfies GiveRequest);

/** What an invitation is. */
export const invitationOf = (token: string) => request<InvitationDoor>('GET', `/api/invitations/${token}`);
/** Takes an invitation up, and signs in. */
export const acceptInvitation = (token: string, what: AcceptRequest) =>
  request<void>('POST', `/api/invitations/${token}`, what);
