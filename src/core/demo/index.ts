export { demoShow } from './demoShow';
