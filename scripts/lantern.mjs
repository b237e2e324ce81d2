// The command line: npm run -s lantern -- COMMAND …
import { spawnSync } from 'node:child_process';
import { fileURLToPath } from 'node:url';
import { packages } from './ready.mjs';

packages({ quiet: true });
const tsx = import.meta.resolve('tsx');
const main = fileURLToPath(new URL('../cli/main.ts', import.meta.url));
// npm moves to the project's folder; paths are meant from where the user stands.
const cwd = process.env.INIT_CWD ?? process.cwd();
const done = spawnSync(process.execPath, ['--import', tsx, main, ...process.argv.slice(2)], { cwd, stdio: 'inherit' });
process.exitCode = done.status ?? 2;
