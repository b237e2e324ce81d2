import { lantern } from './lantern';

const { code, out, err } = await lantern(process.argv.slice(2));
process.stdout.write(out);
process.stderr.write(err);
process.exitCode = code;
