import type { HistoryReply, LoggedOperation, LogRef, RestoreRequest, UndoEntry } from '@doodla/core';
import { unpackLogged } from '@doodla/core';
import { queryOptions } from '@tanstack/react-query';
import { request } from './http';

const path = ({ kind, id }: LogRef, page: string) => `/api/logs/${kind}/${id}/pages/${page}/history`;

/** What was done to a page, oldest first. */
export const historyQuery = (log: LogRef, page: string) =>
  queryOptions({
    queryKey: ['history', log.id, page],
    queryFn: async (): Promise<LoggedOperation[]> => {
      const { steps } = await request<HistoryReply>('GET', path(log, page));
      return steps.map(unpackLogged);
    },
    staleTime: 0,
    gcTime: 0,
  });

/** Makes a page what it was after an operation. Returns the step for undo. */
export const restorePage = (log: LogRef, page: string, what: RestoreRequest) =>
  request<UndoEntry>('POST', path(log, page), what);
