export { RIG_CHECKS, checkRig } from './checkRig';
export type { Check, Finding, FindingCode, FindingData, FindingPlace } from './finding';
