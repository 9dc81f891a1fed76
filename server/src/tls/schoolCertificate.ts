import forge from 'node-forge';
import { randomBytes } from 'node:crypto';
import { isIP } from 'node:net';

export interface KeyPair {
  /** PEM. */
  certificate: string;
  key: string;
}

const ROOT_YEARS = 10;
/** Browsers take certificates for no longer (CA/Browser Forum Baseline Requirements, §6.3.2). */
const SERVER_DAYS = 397;
const DAY_MS = 24 * 3600 * 1000;
const BITS = 2048;

/** A root of the school's own, which its devices are told to trust; it signs nothing but the school's servers. */
export function makeRoot(school: string, now = Date.now()): KeyPair {
  const keys = forge.pki.rsa.generateKeyPair(BITS);
  const name = [
    { name: 'commonName', value: `${school}: root for Doodla` },
    { name: 'organizationName', value: school },
  ];
  const certificate = blank(keys.publicKey, now, ROOT_YEARS * 365 * DAY_MS);
  certificate.setSubject(name);
  certificate.setIssuer(name);
  certificate.setExtensions([
    { name: 'basicConstraints', cA: true, pathLenConstraint: 0, critical: true },
    { name: 'keyUsage', keyCertSign: true, cRLSign: true, critical: true },
    { name: 'subjectKeyIdentifier' },
  ]);
  return signed(certificate, keys.privateKey, keys.privateKey);
}

/** A certificate for names and addresses of a server (RFC 5280, RFC 6125), signed by the school's root. */
export function makeServerCertificate(root: KeyPair, hosts: readonly string[], now = Date.now()): KeyPair {
  const keys = forge.pki.rsa.generateKeyPair(BITS);
  const issuer = forge.pki.certificateFromPem(root.certificate);
  const certificate = blank(keys.publicKey, now, SERVER_DAYS * DAY_MS);
  certificate.setSubject([{ name: 'commonName', value: hosts[0] ?? 'localhost' }]);
  certificate.setIssuer(issuer.subject.attributes);
  certificate.setExtensions([
    { name: 'basicConstraints', cA: false, critical: true },
    { name: 'keyUsage', digitalSignature: true, keyEncipherment: true, critical: true },
    { name: 'extKeyUsage', serverAuth: true },
    { name: 'subjectAltName', altNames: hosts.map(alternativeName) },
    { name: 'subjectKeyIdentifier' },
    { name: 'authorityKeyIdentifier', keyIdentifier: issuer.generateSubjectKeyIdentifier().getBytes() },
  ]);
  return signed(certificate, keys.privateKey, forge.pki.privateKeyFromPem(root.key));
}

/** Kinds 2 (dNSName) and 7 (iPAddress) of RFC 5280 §4.2.1.6. */
function alternativeName(host: string): object {
  return isIP(host) ? { type: 7, ip: host } : { type: 2, value: host };
}

function blank(publicKey: forge.pki.rsa.PublicKey, now: number, length: number): forge.pki.Certificate {
  const certificate = forge.pki.createCertificate();
  certificate.publicKey = publicKey;
  // Positive, so that no reader takes it for a negative number (RFC 5280 §4.1.2.2).
  certificate.serialNumber = `01${randomBytes(15).toString('hex')}`;
  // Clocks of devices may be a little behind.
  certificate.validity.notBefore = new Date(now - DAY_MS);
  certificate.validity.notAfter = new Date(now - DAY_MS + length);
  return certificate;
}

function signed(
  certificate: forge.pki.Certificate,
  key: forge.pki.rsa.PrivateKey,
  signer: forge.pki.rsa.PrivateKey,
): KeyPair {
  certificate.sign(signer, forge.md.sha256.create());
  return {
    certificate: forge.pki.certificateToPem(certificate),
    key: forge.pki.privateKeyToPem(key),
  };
}
