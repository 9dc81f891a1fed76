import { Logger } from '@nestjs/common';
import httpProxy from 'http-proxy';
import type { IncomingMessage, Server, ServerResponse } from 'node:http';
import type { Duplex } from 'node:stream';
import { Readable } from 'node:stream';
import { logFailure } from '../http/failures.js';
import { nameRequest } from '../http/requestIds.js';
import { moving } from '../http/problem.js';
import type { Settings } from '../settings/settings.js';
import type { Peer } from '../storage/leaseTable.js';
import { CLIENT_HEADER, PEER_HEADER } from './peerCalls.js';
import type { SharedLeases } from './sharedLeases.js';

const ID = '[0-9a-f-]{36}';
/** Addresses that are about one lesson or class. */
const ABOUT = new RegExp(`^/api/(?:lessons|sittings|logs/lesson|logs/sitting)/(${ID})(?:[/?]|$)`);
const LIVE = /^\/live\b/;
/** What a live connection is about, in its address. */
export const FOR = 'for';
const READS = new Set(['GET', 'HEAD']);

type Serve = (request: IncomingMessage, response: ServerResponse) => void;

/**
 * Passes requests and live connections on to the process that has their lesson in hand, before anything else sees them. Whoever
 * sends them need not know which process that is.
 */
export class PassingOn {
  private readonly logger = new Logger('Processes');
  private readonly proxy = httpProxy.createProxyServer({ ws: true });
  /** What is passed on at the moment, by peer. */
  private readonly lines = new Map<string, Set<Duplex>>();

  private server: Server | undefined;
  private ended = false;

  constructor(
    private readonly leases: SharedLeases,
    private readonly settings: Pick<Settings, 'trustProxy'>,
  ) {
    leases.onPresent((peers) => this.cutAllBut(peers));
    // Each has a callback of its own; this is for what happens after it.
    this.proxy.on('error', () => undefined);
  }

  /** Comes before all who answer requests of a server. */
  guard(server: Server): void {
    this.server = server;
    const serve = takeOver(server, 'request');
    const upgrade = takeOver(server, 'upgrade');
    server.on('request', (request: IncomingMessage, response: ServerResponse) => {
      this.place(request)
        .then((peer) =>
          peer
            ? this.pass(peer, request, response)
            : serve.forEach((each) => (each as Serve).call(server, request, response)),
        )
        .catch((error: unknown) => this.fail(error, response));
    });
    server.on('upgrade', (request: IncomingMessage, socket: Duplex, head: Buffer) => {
      const lost = () => socket.destroy();
      socket.on('error', lost);
      this.place(request)
        .then((peer) => {
          if (this.ended) return socket.destroy();
          if (peer) return this.passLine(peer, request, socket, head);
          socket.off('error', lost);
          for (const each of upgrade) each.call(server, request, socket, head);
        })
        .catch((error: unknown) => {
          logFailure(this.logger, 'A connection could not be passed on', error);
          socket.destroy();
        });
    });
  }

  /** Where a request belongs whose body had to be read first to know what it is about; undefined for here. */
  async placeOf(request: IncomingMessage, about: string): Promise<Peer | undefined> {
    return wasPassedOn(request) ? undefined : this.leases.placeOf(about, true);
  }

  /** `body`: what has been read of it already. */
  pass(peer: Peer, request: IncomingMessage, response: ServerResponse, body?: object): void {
    this.sign(peer, request);
    const stop = this.keep(peer, request.socket);
    response.once('close', stop);
    const json = body && JSON.stringify(body);
    if (json !== undefined) request.headers['content-length'] = String(Buffer.byteLength(json));
    const buffer = json === undefined ? {} : { buffer: Readable.from([json]) };
    this.proxy.web(request, response, { target: peer.address, ...buffer }, (error) =>
      this.fail(error, response),
    );
  }

  /** Takes no more connections and ends all that is passed on; it comes again, elsewhere. */
  end(): void {
    this.ended = true;
    this.server?.close();
    this.cutAllBut(new Set());
  }

  private passLine(peer: Peer, request: IncomingMessage, socket: Duplex, head: Buffer): void {
    this.sign(peer, request);
    socket.once('close', this.keep(peer, socket));
    this.proxy.ws(request, socket, head, { target: peer.address }, () => socket.destroy());
  }

  private async place(request: IncomingMessage): Promise<Peer | undefined> {
    if (this.comesFromPeer(request)) return undefined;
    const about = aboutOf(request.url ?? '');
    if (about === undefined) return undefined;
    const isLive = LIVE.test(request.url!);
    return this.leases.placeOf(about, isLive || !READS.has(request.method ?? ''), isLive);
  }

  /** Believes what only a peer can know; from anybody else it is taken away. */
  private comesFromPeer(request: IncomingMessage): boolean {
    const secret = request.headers[PEER_HEADER];
    const client = request.headers[CLIENT_HEADER];
    delete request.headers[PEER_HEADER];
    delete request.headers[CLIENT_HEADER];
    if (typeof secret !== 'string' || !this.leases.isOwn(secret)) return false;
    passedOn.add(request);
    if (typeof client === 'string') Object.defineProperty(request, 'ip', { value: client });
    return true;
  }

  private sign(peer: Peer, request: IncomingMessage): void {
    nameRequest(request, this.settings.trustProxy > 0);
    request.headers[PEER_HEADER] = peer.secret;
    request.headers[CLIENT_HEADER] = clientOf(request, this.settings.trustProxy);
  }

  private keep({ id }: Peer, line: Duplex): () => void {
    const lines = this.lines.get(id) ?? new Set();
    this.lines.set(id, lines.add(line));
    return () => lines.delete(line);
  }

  /** What was passed on to a process that is there no more has to begin anew. */
  private cutAllBut(peers: ReadonlySet<string>): void {
    for (const [id, lines] of this.lines) {
      if (peers.has(id)) continue;
      this.lines.delete(id);
      for (const line of lines) line.destroy();
    }
  }

  private fail(error: unknown, response: ServerResponse): void {
    logFailure(this.logger, 'A request could not be passed on', error);
    if (response.headersSent) response.destroy();
    else
      response
        .writeHead(503, {
          'Content-Type': 'application/json',
          'Retry-After': '1',
          'Cache-Control': 'no-store',
        })
        .end(JSON.stringify(moving().getResponse()));
  }
}

const passedOn = new WeakSet<IncomingMessage>();

/** Whether another process has passed a request on to this one. */
export function wasPassedOn(request: IncomingMessage): boolean {
  return passedOn.has(request);
}

/** The lesson or class that a request is about, by its address. */
export function aboutOf(url: string): string | undefined {
  if (!LIVE.test(url)) return ABOUT.exec(url)?.[1];
  const about = new URL(url, 'http://here').searchParams.get(FOR) ?? '';
  return new RegExp(`^${ID}$`).test(about) ? about : undefined;
}

/** Where a request comes from, past so many proxies of one's own, as Express reckons it (“trust proxy”). */
export function clientOf(
  { headers, socket }: Pick<IncomingMessage, 'headers' | 'socket'>,
  proxies: number,
): string {
  const named = [headers['x-forwarded-for'] ?? []].flat().join(',').split(',');
  const way = [socket.remoteAddress ?? '', ...named.map((each) => each.trim()).reverse()].filter(Boolean);
  return way[Math.min(proxies, way.length - 1)] ?? '';
}

/** Takes all who listen for something away, to be called later. */
function takeOver(server: Server, event: string) {
  const listeners = server.listeners(event);
  server.removeAllListeners(event);
  return listeners;
}
