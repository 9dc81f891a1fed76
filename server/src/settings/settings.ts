import { LIMITS } from '@doodla/core';
import { plainToInstance, Transform } from 'class-transformer';
import {
  IsBoolean,
  IsEmail,
  IsInt,
  IsOptional,
  IsString,
  IsUrl,
  Matches,
  Max,
  Min,
  MinLength,
  validateSync,
} from 'class-validator';
import { resolve } from 'node:path';

const asNumber = ({ value }: { value: unknown }) => (typeof value === 'string' ? Number(value) : value);
/** Anything but a plain yes or no stays as it is, and is refused. */
const FLAGS = new Map<unknown, boolean>([
  ['1', true],
  ['true', true],
  ['0', false],
  ['false', false],
]);
const asFlag = ({ value }: { value: unknown }) => FLAGS.get(value) ?? value;
const IsFlag = () => IsBoolean({ message: 'this is 1 or 0' });

/** The database in the data folder. */
export const SQLITE = 'sqlite:';

/** All that an installation can set, read from `DOODLA_…` environment variables. */
export class Settings {
  /** Port to listen on. */
  @Transform(asNumber) @IsInt() @Min(0) @Max(65535) port = 4600;

  /** Address to listen on. */
  @IsString() host = '0.0.0.0';

  /** Address that students type, as in join links; the request's own address when not set. */
  @IsOptional()
  @IsUrl({ require_tld: false, protocols: ['http', 'https'], require_protocol: true })
  publicUrl?: string;

  /** Paths of a PEM certificate chain and its key; both or none. */
  @IsOptional() @IsString() tlsCert?: string;
  @IsOptional() @IsString() tlsKey?: string;

  /** Folder that holds the database and all stored files. */
  @Transform(({ value }: { value: string }) => resolve(value)) @IsString() data = resolve('data');

  /** Where everything but the stored files is: in the data folder, or in PostgreSQL at an address. */
  @Matches(/^(sqlite:|postgres(ql)?:\/\/\S+)$/, {
    message: 'this is sqlite: or the address of a database, postgres://…',
  })
  database = SQLITE;

  /** Redis, where several processes share the database. */
  @IsOptional()
  @Matches(/^rediss?:\/\/\S+$/, { message: 'this is the address of a Redis server, redis://…' })
  redis?: string;

  /** Where the other processes reach this one; on one computer its port says that. */
  @IsOptional()
  @IsUrl({ require_tld: false, protocols: ['http', 'https'], require_protocol: true })
  address?: string;

  /** A store of objects for uploaded files, in the place of the data folder, which then keeps copies of those in use. */
  @IsOptional()
  @Matches(/^s3:\/\/[\w.-]+(\/\S*)?$/, { message: 'this is a bucket and a path in it, s3://bucket/path' })
  files?: string;

  /** Where that store is, if it is not the first of its kind, and its region. */
  @IsOptional()
  @IsUrl({ require_tld: false, protocols: ['http', 'https'], require_protocol: true })
  s3Endpoint?: string;
  @IsString() s3Region = 'us-east-1';

  /** How much of that store is kept in the data folder, megabytes of 1,000,000 bytes. */
  @Transform(asNumber) @IsInt() @Min(0) cacheMb = 10_000;

  /** Signs students' places, in the place of a key in the data folder, which each process would have its own of. */
  @IsOptional() @IsString() @MinLength(32) tokenKey?: string;

  /** How long classes are handed over to other processes when this one is stopped, seconds. */
  @Transform(asNumber) @IsInt() @Min(0) @Max(600) drainSeconds = 10;

  /** Largest upload, in megabytes of 1,000,000 bytes; as all limits, until the school sets its own. */
  @Transform(asNumber) @IsInt() @Min(LIMITS.maxUploadMb.least) @Max(LIMITS.maxUploadMb.most) maxUploadMb =
    100;

  /** Most pages of one document. */
  @Transform(asNumber) @IsInt() @Min(LIMITS.maxPages.least) @Max(LIMITS.maxPages.most) maxPages = 500;

  /** How long classes are kept after they ended, days. */
  @Transform(asNumber)
  @IsInt()
  @Min(LIMITS.retentionDays.least)
  @Max(LIMITS.retentionDays.most)
  retentionDays = 180;

  /** Longest that turning slides or a text into pages may take, seconds. */
  @Transform(asNumber) @IsInt() @Min(5) @Max(1800) officeSeconds = 120;

  /** The school's own sign-in (OpenID Connect): its issuer, and by what it knows this server. */
  @IsOptional()
  @IsUrl({ require_tld: false, protocols: ['http', 'https'], require_protocol: true })
  oidcIssuer?: string;
  @IsOptional() @IsString() oidcClientId?: string;
  @IsOptional() @IsString() oidcClientSecret?: string;

  /** Whether an address counts as somebody's where that sign-in does not say that it has checked it. */
  @Transform(asFlag) @IsFlag() oidcTrustEmail = false;

  /** Address of somebody who is to look after the installation and its schools; a start says how they come in. */
  @IsOptional()
  @IsEmail({}, { message: 'this is an e-mail address' })
  operator?: string;

  /** Whether web pages may be fetched from private and loopback addresses; for the demo and tests alone. */
  @Transform(asFlag) @IsFlag() fetchPrivate = false;

  /** How many proxies stand before the server; their word on the client's address is taken. */
  @Transform(asNumber) @IsInt() @Min(0) @Max(10) trustProxy = 0;

  /** Whether to offer the demo sign-in of one click; set by `npm run demo` alone. */
  @Transform(asFlag) @IsFlag() demo = false;

  /** What programs that watch the server send for its figures (`GET /metrics`); without it there are none. */
  @IsOptional() @IsString() @MinLength(16) metricsToken?: string;

  /** Whether failures are logged as lines of JSON, for programs that read them. */
  @Transform(asFlag) @IsFlag() logJson = false;

  get https(): boolean {
    return this.tlsCert !== undefined;
  }
}

/** Thrown at start when a setting is wrong; the message lists each with what is expected. */
export class SettingsError extends Error {
  override name = 'SettingsError';
}

const PREFIX = 'DOODLA_';

/** Reads and checks the settings. Throws SettingsError. */
export function readSettings(env: Record<string, string | undefined>): Settings {
  const known = new Set([
    'port',
    'host',
    'publicUrl',
    'tlsCert',
    'tlsKey',
    'data',
    'database',
    'redis',
    'address',
    'drainSeconds',
    'files',
    's3Endpoint',
    's3Region',
    'cacheMb',
    'tokenKey',
    'maxUploadMb',
    'maxPages',
    'retentionDays',
    'trustProxy',
    'oidcIssuer',
    'oidcClientId',
    'oidcClientSecret',
    'oidcTrustEmail',
    'officeSeconds',
    'operator',
    'fetchPrivate',
    'demo',
    'logJson',
    'metricsToken',
  ]);
  const given: Record<string, string> = {};
  const unknown: string[] = [];
  for (const [name, value] of Object.entries(env)) {
    if (!name.startsWith(PREFIX) || value === undefined || value === '') continue;
    const key = camelCase(name.slice(PREFIX.length));
    if (known.has(key)) given[key] = value;
    else unknown.push(`${name}: there is no such setting`);
  }
  const settings = plainToInstance(Settings, given, { exposeDefaultValues: true });
  const wrong = validateSync(settings).flatMap(({ property, constraints }) =>
    Object.values(constraints ?? {}).map((text) => `${envName(property)}: ${text}`),
  );
  if ((settings.tlsCert === undefined) !== (settings.tlsKey === undefined)) {
    wrong.push('DOODLA_TLS_CERT and DOODLA_TLS_KEY: set both or none');
  }
  if (settings.oidcIssuer !== undefined && (!settings.oidcClientId || !settings.publicUrl)) {
    wrong.push('DOODLA_OIDC_ISSUER: set DOODLA_OIDC_CLIENT_ID and DOODLA_PUBLIC_URL too');
  }
  if (settings.redis !== undefined && settings.database === SQLITE) {
    wrong.push('DOODLA_REDIS: several processes share a database in PostgreSQL; set DOODLA_DATABASE too');
  }
  if (unknown.length + wrong.length > 0) throw new SettingsError([...unknown, ...wrong].join('\n'));
  return settings;
}

function camelCase(name: string): string {
  return name.toLowerCase().replace(/_(\w)/g, (_, letter: string) => letter.toUpperCase());
}

function envName(property: string): string {
  return PREFIX + property.replace(/[A-Z]/g, (letter) => `_${letter}`).toUpperCase();
}
