import type { LookupAddress, LookupOptions } from 'node:dns';
import { lookup } from 'node:dns';
import { request as requestHttp } from 'node:http';
import type { IncomingMessage } from 'node:http';
import { request as requestHttps } from 'node:https';
import { isIP } from 'node:net';
import { Problem } from '../http/problem.js';
import { isPublicAddress } from './addressFilter.js';

export interface Fetched {
  /** Where it came from in the end. */
  url: string;
  /** Media type without parameters. */
  type: string;
  charset: string | undefined;
  bytes: Buffer;
}

export interface FetchLimits {
  maxBytes: number;
  /** What the answer's media type has to be like. */
  accept: RegExp;
  /** Whether private and loopback addresses are allowed; for the demo and tests alone. */
  allowPrivate: boolean;
  signal?: AbortSignal;
}

const MAX_REDIRECTS = 5;
const TIMEOUT_MS = 15_000;
const TOTAL_MS = 25_000;

const PRIVATE = () =>
  new Problem(
    403,
    'private-address',
    'This address is inside the school’s own network, so it is not fetched. Please save the page as a file and bring that in.',
  );

/**
 * Fetches from the web: http and https alone, every redirect and every address that a name stands
 * for checked at the moment of connecting, so that no name can change between check and use.
 * Throws Problem.
 */
export async function fetchWeb(address: string, limits: FetchLimits): Promise<Fetched> {
  // All of it together, headers and redirects too: an answer that only drips holds nobody up.
  const deadline = AbortSignal.timeout(TOTAL_MS);
  const signal = limits.signal ? AbortSignal.any([limits.signal, deadline]) : deadline;
  let url = urlOf(address);
  for (let i = 0; i <= MAX_REDIRECTS; i++) {
    const response = await ask(url, { ...limits, signal });
    const { statusCode = 0, headers } = response;
    if (statusCode >= 300 && statusCode < 400 && headers.location !== undefined) {
      response.destroy();
      url = urlOf(URL.canParse(headers.location, url) ? new URL(headers.location, url).href : '');
      continue;
    }
    if (statusCode !== 200) {
      response.destroy();
      throw new Problem(
        422,
        'not-there',
        `The page answers with “${statusCode}”, so there is nothing to show. Please check the address.`,
        { statusCode },
      );
    }
    return read(response, url, limits);
  }
  throw new Problem(
    422,
    'redirects',
    'This address sends from one place to the next without end. Please open it in the browser and give the address you end at.',
  );
}

function urlOf(address: string): URL {
  const url = URL.canParse(address) ? new URL(address) : undefined;
  if (
    url &&
    (url.protocol === 'http:' || url.protocol === 'https:') &&
    url.username === '' &&
    url.password === ''
  )
    return url;
  throw new Problem(
    422,
    'no-address',
    'This is not the address of a web page. Please copy it from the browser, beginning with https://.',
  );
}

function ask(url: URL, { allowPrivate, signal }: FetchLimits): Promise<IncomingMessage> {
  const host = url.hostname.replace(/^\[|\]$/g, '');
  // A literal address is connected to without looking anything up.
  if (!allowPrivate && isIP(host) && !isPublicAddress(host)) return Promise.reject(PRIVATE());
  const request = url.protocol === 'https:' ? requestHttps : requestHttp;
  return new Promise((resolve, reject) => {
    const sent = request(url, {
      lookup: allowPrivate ? lookup : publicLookup,
      timeout: TIMEOUT_MS,
      headers: {
        'User-Agent': 'Mozilla/5.0 (compatible; Doodla)',
        Accept: '*/*',
        'Accept-Encoding': 'identity',
      },
      ...(signal && { signal }),
    });
    sent.on('response', resolve);
    sent.on('timeout', () => sent.destroy(new Error('timeout')));
    sent.on('error', (error) => reject(error instanceof Problem ? error : unreachable()));
    sent.end();
  });
}

/** Looks a name up and lets the connection be made only if all its addresses are public. */
function publicLookup(
  host: string,
  options: LookupOptions,
  callback: (error: Error | null, address: string | LookupAddress[], family?: number) => void,
): void {
  lookup(host, { ...options, all: true }, (error, addresses) => {
    if (error) return callback(error, []);
    if (addresses.length === 0 || addresses.some(({ address }) => !isPublicAddress(address)))
      return callback(PRIVATE(), []);
    if (options.all) return callback(null, addresses);
    callback(null, addresses[0]!.address, addresses[0]!.family);
  });
}

async function read(
  response: IncomingMessage,
  url: URL,
  { accept, maxBytes }: FetchLimits,
): Promise<Fetched> {
  const header = response.headers['content-type'] ?? '';
  const type = header.split(';')[0]!.trim().toLowerCase();
  const charset = /charset="?([\w-]+)/i.exec(header)?.[1];
  if (!accept.test(type)) {
    response.destroy();
    throw new Problem(
      415,
      'wrong-type',
      'This address does not lead to a web page. Please download the file and bring it in as a document or picture.',
    );
  }
  const parts: Buffer[] = [];
  let size = 0;
  const deadline = setTimeout(() => response.destroy(new Error('timeout')), TIMEOUT_MS);
  try {
    for await (const part of response as AsyncIterable<Buffer>) {
      size += part.length;
      if (size > maxBytes) {
        response.destroy();
        throw new Problem(
          413,
          'page-too-large',
          'This page is too large to be taken in. Please save it as PDF and bring that in.',
        );
      }
      parts.push(part);
    }
  } catch (error) {
    throw error instanceof Problem ? error : unreachable();
  } finally {
    clearTimeout(deadline);
  }
  return { url: url.href, type, charset, bytes: Buffer.concat(parts) };
}

function unreachable(): Problem {
  return new Problem(
    422,
    'page-unreachable',
    'The page could not be fetched. Please check the address, or save the page as a file and bring that in.',
  );
}
