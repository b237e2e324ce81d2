import { expose } from 'comlink';
import { FileMaker } from './fileMaker';
import { living } from './life';
import { guarded } from './questions';

expose(living(guarded(new FileMaker())));
