import type { CryptoKey, JWK } from 'jose';
import { exportJWK, generateKeyPair, SignJWT } from 'jose';
import { createHash, randomUUID } from 'node:crypto';
import type { IncomingMessage, Server, ServerResponse } from 'node:http';
import { createServer } from 'node:http';
import type { AddressInfo } from 'node:net';
import { text } from 'node:stream/consumers';

/** A code that was given out, and what it is good for. */
interface Grant {
  challenge: string;
  nonce: string;
  redirect: string;
}

/** Who signs in next, as claims of the ID token. */
export type Claims = Record<string, unknown> & { sub: string };

/**
 * A stand-in for a school's OpenID Connect provider (OpenID Connect Core 1.0, Discovery 1.0; PKCE of RFC 7636): whoever is
 * sent to it is signed in at once as `person`. What is wrong with a request is an error, as the standard has it.
 */
export class StandInProvider {
  person: Claims = { sub: 'nobody' };
  /** Set to sign with a key that nobody knows. */
  forges = false;
  /** Claims that the token has instead of the right ones. */
  wrong: Record<string, unknown> = {};
  private readonly grants = new Map<string, Grant>();

  private constructor(
    private readonly server: Server,
    private readonly key: CryptoKey,
    private readonly forged: CryptoKey,
    private readonly jwk: JWK,
    readonly clientId: string,
    readonly clientSecret: string,
  ) {}

  static async start(): Promise<StandInProvider> {
    const [{ privateKey, publicKey }, other] = await Promise.all([
      generateKeyPair('RS256'),
      generateKeyPair('RS256'),
    ]);
    const server = createServer();
    await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
    const jwk = { ...(await exportJWK(publicKey)), kid: 'one', alg: 'RS256', use: 'sig' };
    const provider = new StandInProvider(server, privateKey, other.privateKey, jwk, 'doodla', 'a-secret');
    server.on('request', (request: IncomingMessage, response: ServerResponse) => {
      provider.answer(request, response).catch((error: Error) => response.writeHead(500).end(error.message));
    });
    return provider;
  }

  get issuer(): string {
    return `http://127.0.0.1:${(this.server.address() as AddressInfo).port}`;
  }

  stop(): Promise<void> {
    this.server.closeAllConnections();
    return new Promise((resolve) => this.server.close(() => resolve()));
  }

  private async answer(request: IncomingMessage, response: ServerResponse): Promise<void> {
    const { pathname, searchParams } = new URL(request.url!, this.issuer);
    const json = (value: object, status = 200) =>
      response.writeHead(status, { 'content-type': 'application/json' }).end(JSON.stringify(value));
    if (pathname === '/.well-known/openid-configuration') json(this.metadata());
    else if (pathname === '/keys') json({ keys: [this.jwk] });
    else if (pathname === '/authorize')
      response.writeHead(302, { location: this.granted(searchParams) }).end();
    else if (pathname === '/token') {
      const token = await this.tokenFor(
        new URLSearchParams(await text(request)),
        request.headers.authorization,
      );
      json(token ?? { error: 'invalid_grant' }, token ? 200 : 400);
    } else response.writeHead(404).end();
  }

  private metadata(): object {
    const { issuer } = this;
    return {
      issuer,
      authorization_endpoint: `${issuer}/authorize`,
      token_endpoint: `${issuer}/token`,
      jwks_uri: `${issuer}/keys`,
      response_types_supported: ['code'],
      subject_types_supported: ['public'],
      id_token_signing_alg_values_supported: ['RS256'],
      code_challenge_methods_supported: ['S256'],
    };
  }

  private granted(asked: URLSearchParams): string {
    const back = new URL(asked.get('redirect_uri')!);
    back.searchParams.set('state', asked.get('state')!);
    const isRight =
      asked.get('response_type') === 'code' &&
      asked.get('client_id') === this.clientId &&
      asked.get('code_challenge_method') === 'S256' &&
      asked.get('scope')!.split(' ').includes('openid');
    if (isRight) {
      const code = randomUUID();
      const [challenge, nonce] = [asked.get('code_challenge')!, asked.get('nonce')!];
      this.grants.set(code, { challenge, nonce, redirect: asked.get('redirect_uri')! });
      back.searchParams.set('code', code);
    } else back.searchParams.set('error', 'invalid_request');
    return back.href;
  }

  /** Undefined where the code, the verifier, the secret or the way back is not the right one. A code is good once. */
  private async tokenFor(
    asked: URLSearchParams,
    authorization: string | undefined,
  ): Promise<object | undefined> {
    const code = asked.get('code') ?? '';
    const grant = this.grants.get(code);
    this.grants.delete(code);
    const basic = `Basic ${Buffer.from(`${this.clientId}:${this.clientSecret}`).toString('base64')}`;
    const isClient = authorization === basic || asked.get('client_secret') === this.clientSecret;
    const challenge = createHash('sha256')
      .update(asked.get('code_verifier') ?? '')
      .digest('base64url');
    if (!grant || !isClient || grant.challenge !== challenge || grant.redirect !== asked.get('redirect_uri'))
      return undefined;
    const right = { iss: this.issuer, aud: this.clientId, nonce: grant.nonce };
    const token = await new SignJWT({ ...this.person, ...right, ...this.wrong })
      .setProtectedHeader({ alg: 'RS256', kid: 'one' })
      .setIssuedAt()
      .setExpirationTime('5m')
      .sign(this.forges ? this.forged : this.key);
    return { access_token: randomUUID(), token_type: 'Bearer', expires_in: 300, id_token: token };
  }
}
