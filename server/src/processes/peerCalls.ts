import { LRUCache } from 'lru-cache';
import { connect } from 'node:net';
import type { Peer } from '../storage/leaseTable.js';
import { ElsewhereError } from './leases.js';

/** By which a process knows what another one sends to it. */
export const PEER_HEADER = 'x-doodla-peer';
/** Where a request comes from that another process has passed on. */
export const CLIENT_HEADER = 'x-doodla-client';

const REACH_MS = 500;
const HAND_OVER_MS = 5000;
/** Who was reached a moment ago is not tried again. */
const reached = new LRUCache<string, true>({ max: 1000, ttl: 1000 });

/** Whether a peer takes connections. */
export async function isReached({ id, address }: Peer): Promise<boolean> {
  if (reached.has(id)) return true;
  const { hostname, port, protocol } = new URL(address);
  const is = await new Promise<boolean>((resolve) => {
    const socket = connect(
      Number(port || (protocol === 'https:' ? 443 : 80)),
      hostname.replace(/^\[|\]$/g, ''),
    );
    const done = (result: boolean) => {
      socket.destroy();
      resolve(result);
    };
    socket.setTimeout(REACH_MS, () => done(false));
    socket.once('connect', () => done(true)).once('error', () => done(false));
  });
  if (is) reached.set(id, true);
  return is;
}

interface Wanted {
  lesson: string;
  /** The process that asks. */
  to: string;
  /** Not where somebody is connected for it. */
  ifUnused?: boolean;
}

/** Asks a peer for a lesson that it has in hand. Throws ElsewhereError where it does not hand it over. */
export async function askToHandOver(
  { address, secret }: Peer,
  { lesson, to, ifUnused = false }: Wanted,
): Promise<void> {
  const which = ifUnused ? '&unused=1' : '';
  const answer = await fetch(`${address}/api/processes/leases/${lesson}/handover?to=${to}${which}`, {
    method: 'POST',
    headers: { [PEER_HEADER]: secret },
    signal: AbortSignal.timeout(HAND_OVER_MS),
  }).catch((error: unknown) => {
    throw new ElsewhereError(lesson, { cause: error });
  });
  if (!answer.ok) throw new ElsewhereError(lesson);
}
