import { describe, expect, it } from 'vitest';
import { readSettings, SettingsError } from '../src/settings/settings.js';

describe('settings', () => {
  it('have sensible values when nothing is set', () => {
    expect(readSettings({ PATH: '/bin' })).toMatchObject({
      port: 4600,
      maxUploadMb: 100,
      maxPages: 500,
      demo: false,
      https: false,
    });
  });

  it('are read from the environment', () => {
    const settings = readSettings({
      DOODLA_PORT: '8080',
      DOODLA_PUBLIC_URL: 'https://doodla.school.example',
      DOODLA_MAX_PAGES: '20',
      DOODLA_DEMO: '1',
    });
    expect(settings).toMatchObject({
      port: 8080,
      publicUrl: 'https://doodla.school.example',
      maxPages: 20,
      demo: true,
    });
  });

  it.each([
    [{ DOODLA_PORT: 'many' }, 'DOODLA_PORT'],
    [{ DOODLA_PORT: '70000' }, 'DOODLA_PORT'],
    [{ DOODLA_PUBLIC_URL: 'not an address' }, 'DOODLA_PUBLIC_URL'],
    [{ DOODLA_TLS_CERT: 'cert.pem' }, 'DOODLA_TLS_KEY'],
    [{ DOODLA_MAX_UPLOAD_MB: '0' }, 'DOODLA_MAX_UPLOAD_MB'],
    [{ DOODLA_OIDC_ISSUER: 'https://accounts.school.example' }, 'DOODLA_OIDC_CLIENT_ID'],
    [{ DOODLA_PROT: '4600' }, 'DOODLA_PROT: there is no such setting'],
  ])('are refused by name: %o', (env, hint) => {
    expect(() => readSettings(env)).toThrow(SettingsError);
    expect(() => readSettings(env)).toThrow(hint);
  });
});
