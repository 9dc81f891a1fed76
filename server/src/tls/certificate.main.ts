import 'reflect-metadata';
import { hostname, networkInterfaces } from 'node:os';
import { domainToASCII } from 'node:url';
import { isIP } from 'node:net';
import { readSettings, SettingsError } from '../settings/settings.js';
import { makeRoot, makeServerCertificate } from './schoolCertificate.js';
import { TlsFiles } from './tlsFiles.js';

/** Makes a certificate for this server's names and addresses, signed by a root of the school's own. */
function main(given: readonly string[]): void {
  const settings = readSettings(process.env);
  const hosts = [...new Set([...given.map(checked), ...ownHosts()])];
  const files = new TlsFiles(settings.data);
  if (!files.hasRoot) files.write('root', makeRoot('School'));
  files.write('server', makeServerCertificate(files.read('root'), hosts));
  const address = `https://${hosts[0]!.includes(':') ? `[${hosts[0]}]` : hosts[0]}:${settings.port}`;
  console.log(`A certificate was made for ${hosts.join(', ')}; it is good for 13 months.
Start Doodla again, then let each device trust the school's root once. It is at ${address}/root.crt
  Windows: open the file, Install Certificate, Local Machine, Trusted Root Certification Authorities.
  macOS: open the file, put it into the System keychain, open it there and set Trust to Always.
  iPad, iPhone: open the file, Settings, Profile Downloaded, Install; then General, About, Certificate Trust Settings.
  Android: Settings, Security, Encryption and credentials, Install a certificate, CA certificate.
  Linux, Chromebook: browser settings, Security, Manage certificates, Authorities, Import. Firefox: its own settings, the same way.`);
}

function checked(host: string): string {
  const name = isIP(host) ? host : domainToASCII(host);
  if (name === '' || (!isIP(name) && !/^[a-z0-9]([a-z0-9.-]{0,251}[a-z0-9])?$/.test(name)))
    throw new SettingsError(
      `“${host}” is no name or address. Give them like this: doodla.school.example 10.0.0.7`,
    );
  return name;
}

function ownHosts(): string[] {
  const addresses = Object.values(networkInterfaces()).flatMap((all) => all ?? []);
  const outside = addresses.filter(({ internal, family }) => !internal && family === 'IPv4');
  return [hostname().toLowerCase(), ...outside.map(({ address }) => address), 'localhost', '127.0.0.1'];
}

try {
  main(process.argv.slice(2));
} catch (error) {
  if (!(error instanceof SettingsError)) throw error;
  console.error(error.message);
  process.exit(1);
}
