import { fileURLToPath } from 'node:url';
import { createApp } from './app';

const wanted = process.env.PORT ?? '4173';
const port = Number(wanted);
if (!Number.isInteger(port) || port < 0 || port > 65535) {
  process.stderr.write(`PORT should be a number from 0 to 65535; it is "${wanted}".\n`);
  process.exit(2);
}

const app = createApp(fileURLToPath(new URL('../dist', import.meta.url)));
// Only this machine: the application has no accounts and needs none.
const server = app.listen(port, '127.0.0.1', () => {
  const address = server.address();
  const at = typeof address === 'object' && address ? address.port : port;
  const here = `http://127.0.0.1:${at}`;
  process.stdout.write(`Hollow Lantern is at ${here}/\nThe demo show, at once: ${here}/demo\n`);
});
server.on('error', (error: NodeJS.ErrnoException) => {
  const why = error.code === 'EADDRINUSE' ? `port ${port} is in use; set PORT to another one` : error.message;
  process.stderr.write(`The server cannot start: ${why}.\n`);
  process.exit(2);
});
