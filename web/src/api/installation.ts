import type {
  EraseSchoolRequest,
  InstallationFigures,
  InvitationReply,
  NewSchoolRequest,
  SchoolChangeRequest,
  TeacherInviteRequest,
} from '@doodla/core';
import { queryOptions } from '@tanstack/react-query';
import { request } from './http';

export const installationQuery = queryOptions({
  queryKey: ['installation'],
  queryFn: () => request<InstallationFigures>('GET', '/api/installation'),
  staleTime: 0,
});

/** Makes a school; the link is for whoever is to look after it. */
export const makeSchool = (school: NewSchoolRequest) =>
  request<InvitationReply>('POST', '/api/installation/schools', school);
export const changeSchool = (id: string, wanted: SchoolChangeRequest) =>
  request<void>('PATCH', `/api/installation/schools/${id}`, wanted);
/** Invites somebody to look after a school. */
export const inviteAdmin = (id: string, who: TeacherInviteRequest) =>
  request<InvitationReply>('POST', `/api/installation/schools/${id}/invitations`, who);
/** Takes a closed school away, with all that is in it. */
export const eraseSchool = (id: string, name: string) =>
  request<void>('POST', `/api/installation/schools/${id}/erase`, { name } satisfies EraseSchoolRequest);
