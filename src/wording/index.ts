export { differenceSentence } from './differences';
export { claimWords, encodingKindWords } from './encodings';
export { findingSentence, fixWords } from './findings';
export { meaningWords, monitorWords } from './monitor';
export { dependentsWords, placeSentence, songsWords } from './places';
export { placeWords, problemLine, sentence } from './problems';
export { differenceWords, partWords } from './tones';
export { messageWords, stateWords, variantWords, verdictSentence } from './verdicts';
export { figureWords, senderWords, valueWords } from './values';
