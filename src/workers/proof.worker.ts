import { expose } from 'comlink';
import { Prover } from './prover';

expose(new Prover(ENGINE_MARK));
