import { createHash, createHmac, timingSafeEqual } from 'node:crypto';
import { once } from 'node:events';
import type { IncomingMessage, ServerResponse } from 'node:http';
import { createServer } from 'node:http';
import type { AddressInfo } from 'node:net';

const sha256 = (bytes: Buffer | string) => createHash('sha256').update(bytes).digest('hex');
const keyed = (key: Buffer | string, text: string) => createHmac('sha256', key).update(text).digest();

/** As much of a store that speaks the protocol of S3 as a server uses of it; it refuses who is not signed in. */
export class StandInStore {
  readonly objects = new Map<string, { bytes: Buffer; changedAt: Date }>();
  readonly asked: string[] = [];
  /** Answers so many requests as a store does that is too busy. */
  busy = 0;
  private readonly server = createServer((request, response) => void this.answer(request, response));

  private constructor(
    readonly bucket: string,
    private readonly key: { id: string; secret: string },
  ) {}

  static async start(): Promise<StandInStore> {
    const store = new StandInStore('school-files', { id: 'doodla', secret: 'a-secret-of-the-store' });
    store.server.listen(0, '127.0.0.1');
    await once(store.server, 'listening');
    return store;
  }

  /** What a server has to be told to use it. */
  get env(): Record<string, string> {
    const { port } = this.server.address() as AddressInfo;
    return {
      DOODLA_FILES: `s3://${this.bucket}/doodla`,
      DOODLA_S3_ENDPOINT: `http://127.0.0.1:${port}`,
      AWS_ACCESS_KEY_ID: this.key.id,
      AWS_SECRET_ACCESS_KEY: this.key.secret,
    };
  }

  async close(): Promise<void> {
    this.server.closeAllConnections();
    this.server.close();
    await once(this.server, 'close');
  }

  private async answer(request: IncomingMessage, response: ServerResponse): Promise<void> {
    const parts: Buffer[] = [];
    for await (const part of request) parts.push(part as Buffer);
    const body = Buffer.concat(parts);
    this.asked.push(`${request.method} ${request.url}`);
    if (this.busy > 0) {
      this.busy -= 1;
      return refuse(response, 503, 'SlowDown');
    }
    if (!this.isSigned(request)) return refuse(response, 403, 'SignatureDoesNotMatch');
    const [, bucket, ...rest] = new URL(request.url!, 'http://here').pathname.split('/');
    if (bucket !== this.bucket) return refuse(response, 404, 'NoSuchBucket');
    this.act(request, response, decodeURIComponent(rest.join('/')), body);
  }

  private act(request: IncomingMessage, response: ServerResponse, key: string, body: Buffer): void {
    const found = this.objects.get(key);
    if (request.method === 'PUT') {
      this.objects.set(key, { bytes: body, changedAt: new Date() });
      response.setHeader('ETag', `"${createHash('md5').update(body).digest('hex')}"`).end();
    } else if (request.method === 'DELETE') {
      this.objects.delete(key);
      response.writeHead(204).end();
    } else if (key === '') response.end();
    else if (!found) refuse(response, 404, 'NoSuchKey');
    else {
      response.setHeader('Content-Length', found.bytes.length);
      response.setHeader('Last-Modified', found.changedAt.toUTCString());
      response.end(request.method === 'HEAD' ? undefined : found.bytes);
    }
  }

  /** By “Authenticating Requests (AWS Signature Version 4)” of the Amazon S3 API Reference, headers only. */
  private isSigned({ headers, method, url }: IncomingMessage): boolean {
    const given =
      /^AWS4-HMAC-SHA256 Credential=([^/]+)\/([^,]+), SignedHeaders=([^,]+), Signature=(\w+)$/.exec(
        headers.authorization ?? '',
      );
    if (!given) return false;
    const [, id, scope, signed, signature] = given as unknown as [string, string, string, string, string];
    const { pathname, searchParams } = new URL(url!, 'http://here');
    const query = [...searchParams]
      .map(([name, value]) => `${encodeURIComponent(name)}=${encodeURIComponent(value)}`)
      .sort();
    const lines = signed.split(';').map((name) => `${name}:${[headers[name]].flat().join(',').trim()}\n`);
    const canonical = [
      method,
      pathname,
      query.join('&'),
      lines.join(''),
      signed,
      headers['x-amz-content-sha256'],
    ].join('\n');
    const toSign = ['AWS4-HMAC-SHA256', headers['x-amz-date'], scope, sha256(canonical)].join('\n');
    const key = scope
      .split('/')
      .reduce<Buffer | string>((key, part) => keyed(key, part), `AWS4${this.key.secret}`);
    const own = keyed(key, toSign).toString('hex');
    return (
      id === this.key.id &&
      own.length === signature.length &&
      timingSafeEqual(Buffer.from(own), Buffer.from(signature))
    );
  }
}

function refuse(response: ServerResponse, status: number, code: string): void {
  response.writeHead(status, { 'Content-Type': 'application/xml' });
  response.end(
    `<?xml version="1.0" encoding="UTF-8"?><Error><Code>${code}</Code><Message>${code}</Message></Error>`,
  );
}
