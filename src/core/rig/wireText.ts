import type { UnitSpec } from './rigSpec';

const texts = new WeakMap<UnitSpec, string>();

/**
 * A unit as the wires see it, as a text: two units of the same text treat the same bytes alike
 * the same way, whatever they, their controls and their variants are called.
 */
export function wireText(unit: UnitSpec): string {
  const kept = texts.get(unit);
  if (kept !== undefined) return kept;
  const { name: _, firmware: __, controls, panel: ___, senders: ____, controller: _____, ...known } = unit.profile;
  const { variants, ...rest } = known;
  const quiet = controls.map(({ id, encoding, rest: atRest }) => ({ id, encoding, atRest }));
  const profile = { ...rest, variants: variants && { encoding: variants.encoding, count: variants.names.length } };
  const text = JSON.stringify({ ...unit, profile: { ...profile, controls: quiet } });
  texts.set(unit, text);
  return text;
}
