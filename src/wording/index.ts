export { claimWords, encodingKindWords } from './encodings';
export { placeSentence, songsWords } from './places';
export { placeWords, problemLine, sentence } from './problems';
export { messageWords, stateWords, variantWords, verdictSentence } from './verdicts';
