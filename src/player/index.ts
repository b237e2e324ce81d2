export { STOPPED, placeOf, play, step, stop, type Stepped, type Transport } from './transport';
