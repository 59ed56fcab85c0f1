/** `npm run serve -- --host 192.168.1.20 --cert cert.pem --key key.pem`: the application for the phones of a shop. */
import { spawn, execFileSync } from 'node:child_process';
import { existsSync } from 'node:fs';
import { parseArgs } from 'node:util';
import { installPackages } from './install.mjs';

const USAGE = `npm run serve -- --host <name or address> --cert <file> --key <file> [--port 8443]

  --host   the name or address that phones type; the certificate has to be for it
  --cert   certificate, PEM
  --key    its private key, PEM
  --port   8443 unless given

Behind a proxy that speaks TLS: --host localhost --origin https://name, without --cert and --key.`;

const stop = (message) => {
  console.error(`${message}\n\n${USAGE}`);
  process.exit(1);
};
let values;
try {
  ({ values } = parseArgs({
    options: {
      host: { type: 'string' },
      port: { type: 'string', default: '8443' },
      cert: { type: 'string' },
      key: { type: 'string' },
      origin: { type: 'string' },
    },
  }));
} catch (error) {
  stop(error.message);
}
const { host, port, cert, key, origin } = values;
if (!host) stop('--host: expected the name or address that phones type');
const number = Number(port);
if (!Number.isInteger(number) || number < 1 || number > 65535) stop('--port: expected 1 to 65535');
if (!origin)
  for (const [name, file] of [
    ['cert', cert],
    ['key', key],
  ]) {
    if (!file)
      stop(`--${name}: expected a file; without TLS a phone gives neither microphone nor offline pages`);
    if (!existsSync(file)) stop(`--${name}: there is no file ${file}`);
  }

installPackages();
console.log('Building …');
execFileSync('npm', ['run', '--silent', 'build'], { stdio: ['ignore', 'ignore', 'inherit'] });
const address = origin ?? `https://${host}:${number}`;
const server = spawn('node', ['server.mjs'], {
  stdio: ['ignore', 'inherit', 'inherit'],
  env: {
    ...process.env,
    PORT: String(number),
    // Behind a proxy the application stays on this machine.
    HOST: origin ? '127.0.0.1' : '0.0.0.0',
    ORIGIN: address,
    ...(origin ? {} : { TLS_CERT: cert, TLS_KEY: key }),
  },
});
console.log(`\nHekto for phones: ${address}\n`);
server.once('exit', (code) => process.exit(code ?? 0));
for (const signal of ['SIGINT', 'SIGTERM']) process.once(signal, () => server.kill(signal));
