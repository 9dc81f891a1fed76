import type { Group, GroupRequest } from '@doodla/core';
import { request } from './http';

export const groupsQuery = {
  queryKey: ['groups'],
  queryFn: () => request<Group[]>('GET', '/api/groups'),
};

export const addGroup = (group: GroupRequest) => request<Group>('POST', '/api/groups', group);
export const changeGroup = (id: string, group: GroupRequest) =>
  request<Group>('PUT', `/api/groups/${id}`, group);
export const removeGroup = (id: string) => request<void>('DELETE', `/api/groups/${id}`);
