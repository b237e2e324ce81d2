export { isZip, readBundle, type Bundle } from './read';
export { writeBundle } from './write';
