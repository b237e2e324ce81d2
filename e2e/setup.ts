import { expect } from 'vitest';
import { nameFailures } from './browser';

nameFailures(() => expect.getState().currentTestName ?? 'before the tests');
