import { queryOptions } from '@tanstack/react-query';
import type { Me, SetUpRequest, SignInRequest } from '@doodla/core';
import { request } from './http';

export const meQuery = queryOptions({
  queryKey: ['me'],
  queryFn: () => request<Me>('GET', '/api/me'),
  staleTime: Infinity,
});

export const signIn = (body: SignInRequest) => request<void>('POST', '/api/sign-in', body);
export const setUp = (body: SetUpRequest) => request<void>('POST', '/api/setup', body);
export const demoSignIn = () => request<void>('POST', '/api/demo-sign-in');
export const signOut = () => request<void>('POST', '/api/sign-out');
