import type { LessonSummary } from '@doodla/core';
import type { QueryClient } from '@tanstack/react-query';
import { toast } from 'sonner';

/** A lesson on the start page. */
export interface ListedLesson {
  lesson: LessonSummary;
  client: QueryClient;
}

/** Does something and shows the lessons as they are then; says what went wrong. */
export async function attempt(client: QueryClient, action: Promise<unknown>): Promise<boolean> {
  try {
    await action;
    return true;
  } catch (error) {
    toast.error((error as Error).message);
    return false;
  } finally {
    await Promise.all([
      client.invalidateQueries({ queryKey: ['lessons'] }),
      client.invalidateQueries({ queryKey: ['folders'] }),
    ]);
  }
}
