import { X509Certificate } from 'node:crypto';
import fs from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { Stop } from './say.mjs';

/** How long a certificate made here holds, and how long before its end a new one is made, in days. */
const HOLDS = 397;
const RENEWED = 30;
const DAY = 24 * 3_600_000;

/** The addresses by which phones on the local network reach this machine. */
export const lanAddresses = () =>
  Object.values(os.networkInterfaces())
    .flat()
    .filter(({ family, internal }) => family === 'IPv4' && !internal)
    .map(({ address }) => address);

/** The certificate that is kept in the data folder, while it holds for all addresses. */
function kept(files, addresses) {
  if (!fs.existsSync(files.cert) || !fs.existsSync(files.key)) return null;
  const known = new X509Certificate(fs.readFileSync(files.cert));
  const holds = Date.parse(known.validTo) - Date.now() > RENEWED * DAY;
  return holds && addresses.every((address) => known.checkIP(address)) ? known : null;
}

async function made(files, addresses) {
  const { generate } = await import('selfsigned');
  const { cert, private: key } = await generate([{ name: 'commonName', value: 'Dianome' }], {
    keyType: 'ec',
    algorithm: 'sha256',
    notAfterDate: new Date(Date.now() + HOLDS * DAY),
    extensions: [{ name: 'subjectAltName', altNames: addresses.map((ip) => ({ type: 7, ip })) }],
  });
  fs.writeFileSync(files.key, key, { mode: 0o600 });
  fs.writeFileSync(files.cert, cert, { mode: 0o600 });
  return new X509Certificate(cert);
}

/**
 * What the web server needs to answer phones: a certificate that was given (DIANOME_CERT and DIANOME_KEY), or one that is made here
 * and kept in the data folder.
 */
export async function openLan(folder, port) {
  const addresses = lanAddresses();
  if (addresses.length === 0)
    throw new Stop('This machine has no address on a local network; join one, or start without --lan.');
  const { DIANOME_CERT: cert, DIANOME_KEY: key } = process.env;
  if (Boolean(cert) !== Boolean(key)) throw new Stop('Give both DIANOME_CERT and DIANOME_KEY, or neither.');
  const given = cert ? { cert, key } : null;
  for (const file of given ? Object.values(given) : [])
    if (!fs.existsSync(file)) throw new Stop(`There is no file ${file}.`);
  const files = given ?? { cert: path.join(folder, 'lan-cert.pem'), key: path.join(folder, 'lan-key.pem') };
  const used = given
    ? new X509Certificate(fs.readFileSync(files.cert))
    : (kept(files, addresses) ?? (await made(files, addresses)));
  const names = given ? [used.subjectAltName?.match(/DNS:([^,\s]+)/)?.[1]].filter(Boolean) : [];
  const urls = [...names, ...addresses].map((name) => `https://${name}:${port}`);
  return {
    urls,
    fingerprint: used.fingerprint256,
    env: {
      DIANOME_LAN: urls.join(' '),
      DIANOME_LAN_PORT: String(port),
      DIANOME_LAN_CERT: files.cert,
      DIANOME_LAN_KEY: files.key,
    },
  };
}
