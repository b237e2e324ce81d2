export { pagesInFile, readExclusiveFile, writePagesFile } from './exclusive';
