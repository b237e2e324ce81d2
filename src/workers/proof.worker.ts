import { expose } from 'comlink';
import { living } from './life';
import { Prover } from './prover';
import { guarded } from './questions';

expose(living(guarded(new Prover(ENGINE_MARK))));
