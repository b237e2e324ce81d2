import { beginTransfer, progressOf, stepTransfer, type Errand, type Transfer, type TransferEnd } from '../../core/feet';
import type { Bytes } from '../../core/midi';
import type { Micros } from '../../core/time';

/** Pages on their way to a controller, or back. */
export interface Transferring {
  readonly unitId: string;
  readonly outPortId: string;
  readonly inPortId: string;
  readonly transfer: Transfer;
}

/** How a transfer stands. */
export interface TransferNews {
  readonly unitId: string;
  readonly kind: Errand['kind'];
  /** From 0 to 1. */
  readonly share: number;
  /** What it is at: writing, or reading back. */
  readonly reading: boolean;
  /** Messages that had to be sent again. */
  readonly again: number;
  readonly end: TransferEnd | null;
}

/** A transfer after a step, and what is sent by it. */
export interface TransferStep {
  readonly transferring: Transferring;
  readonly sends: readonly Bytes[];
}

export function startTransfer(
  where: Omit<Transferring, 'transfer'>,
  errand: Errand,
  device: number,
  now: Micros,
): TransferStep {
  // Any number that the one before did not have tells them apart.
  const { transfer, sends } = beginTransfer(errand, Math.floor(now / 1000), now, device);
  return { transferring: { ...where, transfer }, sends };
}

export function transferOn(transferring: Transferring, now: Micros): TransferStep {
  return stepped(transferring, stepTransfer(transferring.transfer, { kind: 'wake' }, now));
}

export function transferHears(transferring: Transferring, bytes: Bytes, now: Micros): TransferStep {
  return stepped(transferring, stepTransfer(transferring.transfer, { kind: 'heard', bytes }, now));
}

export const cancelTransfer = (transferring: Transferring, now: Micros): TransferStep =>
  stepped(transferring, stepTransfer(transferring.transfer, { kind: 'cancel' }, now));

const stepped = (
  transferring: Transferring,
  { transfer, sends }: { readonly transfer: Transfer; readonly sends: readonly Bytes[] },
): TransferStep => ({
  transferring: transfer === transferring.transfer ? transferring : { ...transferring, transfer },
  sends,
});

export const transferNews = ({ unitId, transfer }: Transferring): TransferNews => ({
  unitId,
  kind: transfer.errand.kind,
  share: progressOf(transfer),
  reading: transfer.phase.at === 'ask' || transfer.phase.at === 'want',
  again: transfer.again,
  end: transfer.end,
});
