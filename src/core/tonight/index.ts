export {
  lackingSongs,
  matchOther,
  noMatches,
  otherUnitOf,
  stillThere,
  type OtherMatch,
  type OtherUnit,
} from './otherUnit';
export { differsTonight } from './differs';
export { changesFor, tonightOf, unitsOff, writtenOf, type ShowTonight } from './showTonight';
