import { indexOfAddress } from '../../addressing';
import { understand, type UnitState } from '../../rig';
import { BANK_LSB, BANK_MSB, channelOf, decodeMessage, fromHex } from '../../midi';
import { indexShow, type Unit } from '../../show';
import { formatPosition } from '../../time';
import { finding, type Finding } from '../finding';
import { inSong, type SongCheck } from './songCheck';

/** Messages that stand in a song as bytes, and that their unit will not obey: on another channel, to no slot, in an unknown bank, or without meaning. */
export const rawMessages: SongCheck = (facts) => {
  const { show, song, time, passed } = facts;
  const { units } = indexShow(show);
  const memories = new Map<string, Map<number, number>>();
  const found: Finding[] = [];
  for (const { moment, before } of passed) {
    const { action, id, at, source } = moment;
    if (action.kind !== 'message' || source !== 'cue') continue;
    const unit = units.get(action.unitId);
    const bytes = fromHex(action.bytes);
    const message = bytes && decodeMessage(bytes);
    if (!unit || !bytes || !message) continue;
    const base = { song: song.title, at: formatPosition(time.bars, at, song.bars), unit: unit.name };
    const place = inSong(facts, at, { cueId: id });
    const channel = channelOf(bytes);
    if (channel !== undefined && unit.listens !== 'all' && channel !== unit.listens) {
      found.push(finding('song.other-channel', 'error', place, { ...base, channel, listens: unit.listens }));
      continue;
    }
    let memory = memories.get(unit.id);
    if (!memory) memories.set(unit.id, (memory = new Map<number, number>()));
    const { variant, controls, heard } = understand(unit.profile, message, memory);
    if (message.kind === 'control') memory.set(message.control, message.value);
    if (variant !== undefined || controls.length > 0 || heard || message.kind === 'system') continue;
    if (message.kind === 'program')
      found.push(...programFindings(unit, message.program, before[unit.id]?.bank ?? null));
    else if (!isBank(message))
      found.push(finding('song.not-understood', 'warning', place, { ...base, bytes: action.bytes }));

    function programFindings(to: Unit, program: number, bank: UnitState['bank']): Finding[] {
      const { plan } = to.profile;
      if (plan.bank.send !== 'none' && bank === null) return [finding('song.bank-unknown', 'warning', place, base)];
      const index = indexOfAddress(plan, { bank: plan.bank.send === 'none' ? 0 : (bank ?? 0), program });
      return index === undefined ? [finding('song.no-such-slot', 'error', place, { ...base, program })] : [];
    }
  }
  return found;
};

const isBank = (message: { readonly kind: string; readonly control?: number }): boolean =>
  message.kind === 'control' && (message.control === BANK_MSB || message.control === BANK_LSB);
