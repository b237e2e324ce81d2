// A worker does not inherit the loader for TypeScript.
import { register } from 'tsx/esm/api';

register();
await import('./setWorker.ts');
