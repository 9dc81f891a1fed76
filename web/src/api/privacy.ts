import type {
  ForgetReply,
  KeepingReply,
  KeepingRequest,
  StudentData,
  StudentNameRequest,
  StudentTrace,
} from '@doodla/core';
import { request } from './http';

const query = (name: string) => new URLSearchParams({ name });

/** The classes in which somebody of a name was. */
export const tracesOf = (name: string) =>
  request<StudentTrace[]>('GET', `/api/students/traces?${query(name)}`);

/** Everything that is kept about somebody. */
export const dataOf = (name: string) => request<StudentData[]>('GET', `/api/students/data?${query(name)}`);

/** Takes everything about somebody away. */
export const forgetStudent = (name: string) =>
  request<ForgetReply>('POST', '/api/students/forget', { name } satisfies StudentNameRequest);

/** Keeps a class for longer. */
export const keepLonger = (sitting: string, days: number) =>
  request<KeepingReply>('POST', `/api/sittings/${sitting}/keeping`, { days } satisfies KeepingRequest);
