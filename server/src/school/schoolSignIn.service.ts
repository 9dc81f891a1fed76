import { Injectable, Logger } from '@nestjs/common';
import { InjectRepository } from '@nestjs/typeorm';
import { randomBytes } from 'node:crypto';
import type { Configuration, IDToken } from 'openid-client';
import * as oidc from 'openid-client';
import { Repository } from 'typeorm';
import { logFailure } from '../http/failures.js';
import { Problem } from '../http/problem.js';
import { hashPassword } from '../people/password.js';
import { Teacher } from '../people/teacher.entity.js';
import { Settings } from '../settings/settings.js';
import { FIRST_SCHOOL } from '../schools/school.entity.js';
import type { SchoolOidc } from '../schools/schools.service.js';
import { SchoolsService } from '../schools/schools.service.js';
import { InvitationsService } from './invitations.service.js';

/** Where the provider sends people back to. */
export const RETURN_PATH = '/api/sign-in/school/return';
const PROVIDER_PATIENCE_S = 10;

/** What a browser keeps while its owner is at the provider (OpenID Connect Core 1.0 §3.1.2.1; RFC 7636). */
export interface SignInUnderWay {
  state: string;
  nonce: string;
  verifier: string;
  /** The id of the school. */
  school: string;
}

/** Who the provider says somebody is. */
interface Identity {
  subject: string;
  /** An address that is certainly theirs. */
  email: string | undefined;
  name: string | undefined;
}

interface Provider {
  provider: Configuration;
  trustEmail: boolean;
}

/** Signing in with the school's own accounts: OpenID Connect, authorization code with PKCE. */
@Injectable()
export class SchoolSignInService {
  private readonly logger = new Logger('SchoolSignIn');
  /** By school; asked again where a school has another one. */
  private readonly providers = new Map<string, { of: string; provider: Promise<Configuration> }>();

  constructor(
    private readonly settings: Settings,
    @InjectRepository(Teacher) private readonly teachers: Repository<Teacher>,
    private readonly invitations: InvitationsService,
    private readonly schools: SchoolsService,
  ) {}

  /** Where to send somebody who wants to sign in at a school, and what their browser has to keep. Throws Problem. */
  async begin(slug?: string): Promise<{ url: string; underWay: SignInUnderWay }> {
    const school = slug === undefined ? FIRST_SCHOOL : (await this.schools.bySlug(slug)).id;
    const { provider } = await this.discovered(school);
    const [state, nonce, verifier] = [oidc.randomState(), oidc.randomNonce(), oidc.randomPKCECodeVerifier()];
    const url = oidc.buildAuthorizationUrl(provider, {
      redirect_uri: this.returnUrl.href,
      scope: 'openid email profile',
      state,
      nonce,
      code_challenge: await oidc.calculatePKCECodeChallenge(verifier),
      code_challenge_method: 'S256',
    });
    return { url: url.href, underWay: { state, nonce, verifier, school } };
  }

  /** The teacher who comes back from the provider; `query` is what the address ends with. Throws Problem. */
  async finish(query: string, underWay: SignInUnderWay): Promise<Teacher> {
    const { provider, trustEmail } = await this.discovered(underWay.school);
    const url = this.returnUrl;
    url.search = query;
    const identity = await identityFrom({ provider, trustEmail }, url, underWay).catch((error: unknown) => {
      logFailure(this.logger, 'A sign-in with the school’s account failed', error);
      throw new Problem(
        401,
        'school-sign-in-failed',
        'Signing in with the school’s account did not work. Please try again, or sign in with your password.',
      );
    });
    return this.teacherOf(underWay.school, identity);
  }

  private get returnUrl(): URL {
    return new URL(RETURN_PATH, this.settings.publicUrl);
  }

  private async discovered(school: string): Promise<Provider> {
    const signIn = this.schools.signInOf(school);
    if (!signIn)
      throw new Problem(404, 'no-school-sign-in', 'This server has no sign-in with the school’s accounts.');
    const of = JSON.stringify(signIn);
    let known = this.providers.get(school);
    if (known?.of !== of) {
      known = { of, provider: this.discover(signIn) };
      this.providers.set(school, known);
      // It is asked again the next time.
      known.provider.catch(() => this.providers.delete(school));
    }
    return { provider: await known.provider, trustEmail: signIn.trustEmail };
  }

  private async discover({ issuer, clientId, clientSecret }: SchoolOidc): Promise<Configuration> {
    const url = new URL(issuer);
    const plain = url.protocol === 'http:';
    try {
      const provider = await oidc.discovery(url, clientId, clientSecret, undefined, {
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

  /** Whoever came so before; else whoever has that address or was invited by it. Throws Problem. */
  private async teacherOf(schoolId: string, { subject, email, name }: Identity): Promise<Teacher> {
    const known = await this.teachers.findOneBy({ schoolId, subject });
    if (known) return known;
    if (email === undefined)
      throw new Problem(
        403,
        'address-not-verified',
        'The school’s sign-in does not say which e-mail address is yours. Please sign in with your password, or ask whoever looks after the server.',
      );
    const teacher = await this.teachers.findOneBy({ schoolId, email });
    if (!teacher) return this.invited(schoolId, { email, subject, name });
    // An account of the school goes with one teacher for ever: an address that moves on takes nothing along.
    if (teacher.subject !== null) throw notATeacher();
    await this.teachers.update({ id: teacher.id }, { subject });
    return { ...teacher, subject };
  }

  private async invited(
    schoolId: string,
    { email, subject, name }: Identity & { email: string },
  ): Promise<Teacher> {
    const invitation = await this.invitations.standing(schoolId, email);
    if (!invitation) throw notATeacher();
    return this.invitations.admit(invitation, {
      name: name || invitation.name,
      // A password that nobody knows: such a teacher comes in this way, or chooses one by a link.
      passwordHash: await hashPassword(randomBytes(32).toString('base64url')),
      subject,
    });
  }
}

async function identityFrom(
  { provider, trustEmail }: Provider,
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
  const isTheirs = verified === true || (verified === undefined && trustEmail);
  return {
    subject: `${claims.iss} ${claims.sub}`,
    email: typeof email === 'string' && isTheirs ? email.toLowerCase() : undefined,
    name: typeof name === 'string' ? name.trim().slice(0, 80) : undefined,
  };
}

const notATeacher = () =>
  new Problem(
    403,
    'not-a-teacher',
    'Nobody with the address of your school’s account is a teacher in Doodla yet. Please ask whoever looks after the school for an invitation.',
  );
