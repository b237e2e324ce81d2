export { timeSourceWords } from './times';
export { listWords, sentenceOf } from './lists';
export { cueWords, sweepWords } from './cues';
export {
  agoWords,
  countInWords,
  clockWords,
  durationWords,
  lateLeftWords,
  lateWords,
  listTitle,
  millisWords,
  readClock,
} from './durations';
export { answerWords } from './answers';
export { differenceSentence } from './differences';
export { claimWords, encodingKindWords } from './encodings';
export { findingSentence, findingSentenceInSong, fixWords } from './findings';
export { meaningWords, monitorWords } from './monitor';
export { editPlaceWords } from './editPlaces';
export { importedWords } from './imported';
export { dependentsWords, placeSentence, songsWords } from './places';
export { placeWords, problemLine, sentence } from './problems';
export { remedyEffect, remedyWords } from './remedies';
export { differenceWords, partWords } from './tones';
export {
  marginMillis,
  marginWords,
  messageWords,
  nightMissWords,
  stateWords,
  variantWords,
  verdictSentence,
} from './verdicts';
export { HEARD_WORDS, SESSION_WORDS, actWords, doesWords, hearsWords, missWords } from './reactions';
export { figureWords, valueWords } from './values';
export { TRIGGER_HEADS, doingWords, memoryDifferenceWords, pressWords, transferWords } from './feet';
export { sheetWords } from './sheets';
export { noLetterSentence, unprintableSentence } from './unprintable';
export { showDifferenceWords } from './showDifferences';
export { codeExample } from './timeCode';
export { JOIN_REFUSALS, PAIR_REFUSALS, said } from './said';
