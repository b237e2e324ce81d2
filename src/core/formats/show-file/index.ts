export { parseJson, readShowData, readShowFile } from './read';
export { writeShowFile } from './write';
export { showJsonSchema } from './jsonSchema';
