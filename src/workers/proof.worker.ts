import { expose } from 'comlink';
import { Prover } from './prover';

expose(new Prover());
