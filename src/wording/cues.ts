import { fromHex } from '../core/midi';
import { indexShow, type Cue, type Show, type Sweep } from '../core/show';
import { figureWords, valueWords } from './values';
import { messageWords } from './verdicts';

/** What a cue does, as the chart calls it: a tone's or a move's name, a control with its value, or a message. */
export function cueWords(show: Show, action: Cue['action']): string {
  const { tones, units } = indexShow(show);
  switch (action.kind) {
    case 'tone':
      return tones.get(action.toneId)?.name ?? 'a tone that is gone';
    case 'move':
      return show.moves.find((m) => m.id === action.moveId)?.name ?? 'a move that is gone';
    case 'control': {
      const control = units.get(action.unitId)?.profile.controls.find((c) => c.id === action.controlId);
      return control ? `${control.name} ${valueWords(control, action.value)}` : 'a control that is gone';
    }
    case 'message':
      return messageWords(fromHex(action.bytes)!);
  }
}

const FORMS = { rise: 'rising', fall: 'falling', triangle: 'triangle', sine: 'sine', steps: 'stepped' } as const;

/** A sweep in a few words: "Wah sweep, 300 Hz to 1800 Hz, sine". */
export function sweepWords(show: Show, sweep: Sweep): string {
  const control = indexShow(show)
    .units.get(sweep.unitId)
    ?.profile.controls.find((c) => c.id === sweep.controlId);
  if (!control) return 'a control that is gone';
  const unit = 'unit' in control.encoding ? control.encoding.unit : '';
  const { shape } = sweep;
  const [low, high] =
    shape.kind === 'line' ? [shape.points[0]!.value, shape.points.at(-1)!.value] : [shape.low, shape.high];
  const form = shape.kind === 'line' ? 'drawn' : FORMS[shape.form];
  return `${control.name}, ${figureWords(low, unit)} to ${figureWords(high, unit)}, ${form}`;
}
