export { readUnitFile, type UnitFile } from './read';
export { writeProfileFile, writeUnitFile } from './write';
