import { Injectable, Logger } from '@nestjs/common';
import { InjectRepository } from '@nestjs/typeorm';
import { randomBytes, randomUUID } from 'node:crypto';
import type { Configuration, IDToken } from 'openid-client';
import * as oidc from 'openid-client';
import { Repository } from 'typeorm';
import { logFailure } from '../http/failures.js';
import { Problem } from '../http/problem.js';
import { hashPassword } from '../people/password.js';
import { Teacher } from '../people/teacher.entity.js';
import { Settings } from '../settings/settings.js';
import { Invitation } from './invitation.entity.js';

/** Where the provider sends people back to. */
export const RETURN_PATH = '/api/sign-in/school/return';
const PROVIDER_PATIENCE_S = 10;

/** What a browser keeps while its owner is at the provider (OpenID Connect Core 1.0 §3.1.2.1; RFC 7636). */
export interface SignInUnderWay {
  state: string;
  nonce: string;
  verifier: string;
}

/** Who the provider says somebody is. */
interface Identity {
  subject: string;
  /** An address that is certainly theirs. */
  email: string | undefined;
  name: string | undefined;
}

/** Signing in with the school's own accounts: OpenID Connect, authorization code with PKCE. */
@Injectable()
export class SchoolSignInService {
  private readonly logger = new Logger('SchoolSignIn');
  private provider: Promise<Configuration> | undefined;

  constructor(
    private readonly settings: Settings,
    @InjectRepository(Teacher) private readonly teachers: Repository<Teacher>,
    @InjectRepository(Invitation) private readonly invitations: Repository<Invitation>,
  ) {}

  /** Where to send somebody who wants to sign in, and what their browser has to keep. Throws Problem. */
  async begin(): Promise<{ url: string; underWay: SignInUnderWay }> {
    const provider = await this.discovered();
    const [state, nonce, verifier] = [oidc.randomState(), oidc.randomNonce(), oidc.randomPKCECodeVerifier()];
    const url = oidc.buildAuthorizationUrl(provider, {
      redirect_uri: this.returnUrl.href,
      scope: 'openid email profile',
      state,
      nonce,
      code_challenge: await oidc.calculatePKCECodeChallenge(verifier),
      code_challenge_method: 'S256',
    });
    return { url: url.href, underWay: { state, nonce, verifier } };
  }

  /** The teacher who comes back from the provider; `query` is what the address ends with. Throws Problem. */
  async finish(query: string, underWay: SignInUnderWay): Promise<Teacher> {
    const provider = await this.discovered();
    const url = this.returnUrl;
    url.search = query;
    const identity = await this.identityFrom(provider, url, underWay).catch((error: unknown) => {
      logFailure(this.logger, 'A sign-in with the school’s account failed', error);
      throw new Problem(
        401,
        'school-sign-in-failed',
        'Signing in with the school’s account did not work. Please try again, or sign in with your password.',
      );
    });
    return this.teacherOf(identity);
  }

  private get returnUrl(): URL {
    return new URL(RETURN_PATH, this.settings.publicUrl);
  }

  private discovered(): Promise<Configuration> {
    this.provider ??= this.discover();
    // It is asked again the next time.
    this.provider.catch(() => (this.provider = undefined));
    return this.provider;
  }

  private async discover(): Promise<Configuration> {
    const { oidcIssuer, oidcClientId, oidcClientSecret } = this.settings;
    if (oidcIssuer === undefined || oidcClientId === undefined)
      throw new Problem(404, 'no-school-sign-in', 'This server has no sign-in with the school’s accounts.');
    const issuer = new URL(oidcIssuer);
    const plain = issuer.protocol === 'http:';
    try {
      const provider = await oidc.discovery(issuer, oidcClientId, oidcClientSecret, undefined, {
        timeout: PROVIDER_PATIENCE_S,
        execute: [oidc.enableNonRepudiationChecks, ...(plain ? [oidc.allowInsecureRequests] : [])],
      });
      return provider;
    } catch (error) {
      logFailure(this.logger, 'The school’s sign-in cannot be reached', error);
      throw new Problem(
        503,
        'school-sign-in-away',
        'The school’s sign-in cannot be reached just now. Please sign in with your password, or try again later.',
      );
    }
  }

  private async identityFrom(
    provider: Configuration,
    url: URL,
    { state, nonce, verifier }: SignInUnderWay,
  ): Promise<Identity> {
    const tokens = await oidc.authorizationCodeGrant(provider, url, {
      expectedState: state,
      expectedNonce: nonce,
      pkceCodeVerifier: verifier,
      idTokenExpected: true,
    });
    const claims = tokens.claims() as IDToken;
    const told = claims['email'] === undefined && provider.serverMetadata().userinfo_endpoint !== undefined;
    const more = told ? await oidc.fetchUserInfo(provider, tokens.access_token, claims.sub) : {};
    const { email, email_verified: verified, name } = { ...claims, ...more } as Record<string, unknown>;
    const isTheirs = verified === true || (verified === undefined && this.settings.oidcTrustEmail);
    return {
      subject: `${claims.iss} ${claims.sub}`,
      email: typeof email === 'string' && isTheirs ? email.toLowerCase() : undefined,
      name: typeof name === 'string' ? name.trim().slice(0, 80) : undefined,
    };
  }

  /** Whoever came so before; else whoever has that address or was invited by it. Throws Problem. */
  private async teacherOf({ subject, email, name }: Identity): Promise<Teacher> {
    const known = await this.teachers.findOneBy({ subject });
    if (known) return known;
    if (email === undefined)
      throw new Problem(
        403,
        'address-not-verified',
        'The school’s sign-in does not say which e-mail address is yours. Please sign in with your password, or ask whoever looks after the server.',
      );
    const teacher = await this.teachers.findOneBy({ email });
    if (!teacher) return this.invited(email, subject, name);
    // An account of the school goes with one teacher for ever: an address that moves on takes nothing along.
    if (teacher.subject !== null) throw notATeacher();
    await this.teachers.update({ id: teacher.id }, { subject });
    return { ...teacher, subject };
  }

  private async invited(email: string, subject: string, name: string | undefined): Promise<Teacher> {
    const invitation = await this.invitations.findOneBy({ email });
    if (!invitation || invitation.expiresAt < Date.now()) throw notATeacher();
    const teacher: Teacher = {
      id: randomUUID(),
      name: name || invitation.name,
      email,
      // A password that nobody knows: such a teacher comes in this way, or chooses one by a link.
      passwordHash: await hashPassword(randomBytes(32).toString('base64url')),
      subject,
      admin: false,
      createdAt: Date.now(),
    };
    await this.teachers.insert(teacher);
    await this.invitations.delete({ email });
    return teacher;
  }
}

const notATeacher = () =>
  new Problem(
    403,
    'not-a-teacher',
    'Nobody with the address of your school’s account is a teacher in Doodla yet. Please ask whoever looks after the school for an invitation.',
  );
