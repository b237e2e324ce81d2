import { fileURLToPath } from 'node:url';
import { OWN_HOSTS, createApp } from './app';
import { ownAddresses, share } from './share';

// An empty one is as good as none.
const wanted = process.env.PORT?.trim() || '4173';
const port = Number(wanted);
if (!Number.isInteger(port) || port < 0 || port > 65535) {
  process.stderr.write(`PORT should be a number from 0 to 65535; it is "${wanted}".\n`);
  process.exit(2);
}

// Without it, only this machine: the application has no accounts and needs none.
const shares = process.argv.includes('--share');
const unknown = process.argv.slice(2).filter((a) => a !== '--share');
if (unknown.length > 0) {
  process.stderr.write(`usage: npm start [-- --share]; "${unknown.join(' ')}" is not known.\n`);
  process.exit(2);
}
const own = shares ? ownAddresses() : [];
const app = createApp(fileURLToPath(new URL('../dist', import.meta.url)), [...OWN_HOSTS, ...own]);
const server = app.listen(port, shares ? '0.0.0.0' : '127.0.0.1', (error?: Error) => {
  // It is called with an error too; that is said below.
  if (error) return;
  const address = server.address();
  const at = typeof address === 'object' && address ? address.port : port;
  const here = `http://127.0.0.1:${at}`;
  process.stdout.write(`Hollow Lantern is at ${here}/\nThe demo show, at once: ${here}/demo\n`);
  if (!shares) return;
  const others = (own.length > 0 ? own : ['127.0.0.1']).map((a) => `http://${a}:${at}/watch`);
  share(server, { addresses: others, now: () => performance.now() });
  process.stdout.write(`Screens elsewhere: ${others.join(' or ')}, with a code from Set, Screens.\n`);
});
server.on('error', (error: NodeJS.ErrnoException) => {
  const why = error.code === 'EADDRINUSE' ? `port ${port} is in use; set PORT to another one` : error.message;
  process.stderr.write(`The server cannot start: ${why}.\n`);
  process.exit(2);
});
