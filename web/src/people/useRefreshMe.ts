import { useQueryClient } from '@tanstack/react-query';

/** Asks the server anew who is signed in. */
export function useRefreshMe(): () => Promise<void> {
  const client = useQueryClient();
  return () => client.resetQueries();
}
