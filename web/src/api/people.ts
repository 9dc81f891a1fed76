import { queryOptions } from '@tanstack/react-query';
import { request } from './http';

export interface Me {
  teacher: { id: string; name: string } | null;
  needsSetup: boolean;
  demo: boolean;
}

export const meQuery = queryOptions({
  queryKey: ['me'],
  queryFn: () => request<Me>('GET', '/api/me'),
  staleTime: Infinity,
});

export const signIn = (body: { email: string; password: string }) =>
  request<void>('POST', '/api/sign-in', body);
export const setUp = (body: { name: string; email: string; password: string }) =>
  request<void>('POST', '/api/setup', body);
export const demoSignIn = () => request<void>('POST', '/api/demo-sign-in');
export const signOut = () => request<void>('POST', '/api/sign-out');
