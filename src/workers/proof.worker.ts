import { expose } from 'comlink';
import { living } from './life';
import { Prover } from './prover';

expose(living(new Prover(ENGINE_MARK)));
