import { queryOptions } from '@tanstack/react-query';
import type { Me, SchoolDoor, SetUpRequest, SignInReply, SignInRequest } from '@doodla/core';
import { request } from './http';

export const meQuery = queryOptions({
  queryKey: ['me'],
  queryFn: () => request<Me>('GET', '/api/me'),
  staleTime: Infinity,
});

/** Signs in; where one has places at several schools, nobody is in yet, and the reply names them. */
export const signIn = (body: SignInRequest) => request<SignInReply | undefined>('POST', '/api/sign-in', body);
/** What the sign-in page of a school has to know. */
export const schoolDoor = (slug: string) =>
  request<SchoolDoor>('GET', `/api/schools/${encodeURIComponent(slug)}/door`);
export const setUp = (body: SetUpRequest) => request<void>('POST', '/api/setup', body);
export const demoSignIn = () => request<void>('POST', '/api/demo-sign-in');
export const signOut = () => request<void>('POST', '/api/sign-out');
