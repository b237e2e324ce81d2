export { parseJson, readShowData, readShowFile } from './read';
export { writeShowFile } from './write';
