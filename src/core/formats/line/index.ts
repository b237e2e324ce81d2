export {
  TOLD_SONGS,
  fromDeskSchema,
  fromScreenSchema,
  readLine,
  toDeskSchema,
  toScreenSchema,
  type FromDesk,
  type StageNews,
  type ToDesk,
  type ToScreen,
} from './line';
