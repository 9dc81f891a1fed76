import { useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { installationQuery } from '../api/installation';

/** Does something with a school and asks for the figures anew; what went wrong is a sentence. */
export function useSchoolChange() {
  const client = useQueryClient();
  const [problem, setProblem] = useState<string>();
  const [isBusy, setBusy] = useState(false);
  const attempt = async <T>(task: () => Promise<T>, then?: (made: T) => void): Promise<void> => {
    setProblem(undefined);
    setBusy(true);
    try {
      const made = await task();
      await client.invalidateQueries({ queryKey: installationQuery.queryKey });
      then?.(made);
    } catch (error) {
      setProblem((error as Error).message);
    } finally {
      setBusy(false);
    }
  };
  return { problem, isBusy, attempt };
}
