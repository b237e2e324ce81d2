export { changesFor, tonightOf, unitsOff, writtenOf, type ShowTonight } from './showTonight';
