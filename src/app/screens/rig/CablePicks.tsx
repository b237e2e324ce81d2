import { setUnitField, type Unit } from '../../../core/show';
import { Pick } from '../../widgets/Pick';
import { perform } from '../../state/desk';
import { useShow } from '../../state/store';

const NONE = 'none';

interface Props {
  readonly unit: Unit;
  /** What the choice is called; where it stands alone, whose it is too. */
  readonly label: string;
  readonly hideLabel?: boolean;
}

/** Where the cable into a unit comes from. */
export function InputFrom({ unit, label, hideLabel = false }: Props) {
  const show = useShow();
  const { input } = unit;
  const others = show.units.filter((u) => u.id !== unit.id);
  const fed =
    input === null
      ? NONE
      : input.from === 'port'
        ? `port ${input.portId}`
        : `${input.thru ? 'thru' : 'out'} ${input.unitId}`;
  const set = (value: Unit['input'], what: string): void =>
    void perform(setUnitField(show, unit.id, 'input', value), what);
  const feed = (key: string): void => {
    const [from, ...rest] = key.split(' ');
    const id = rest.join(' ');
    if (from === NONE) set(null, 'pull a cable');
    else if (from === 'port') set({ from: 'port', portId: id }, 'move a cable');
    else set({ from: 'unit', unitId: id, thru: from === 'thru' }, 'move a cable');
  };
  return (
    <Pick
      label={label}
      hideLabel={hideLabel}
      value={fed}
      onPick={feed}
      choices={[
        { id: NONE, name: 'nothing' },
        ...show.ports.map((p) => ({ id: `port ${p.id}`, name: `port ${p.name}` })),
        ...others.flatMap((u) => [
          { id: `out ${u.id}`, name: `${u.name}, out` },
          { id: `thru ${u.id}`, name: `${u.name}, thru` },
        ]),
      ]}
    />
  );
}

/** Which port the cable out of a unit goes back to. */
export function OutputTo({ unit, label, hideLabel = false }: Props) {
  const show = useShow();
  const { returns } = unit;
  return (
    <Pick
      label={label}
      hideLabel={hideLabel}
      value={returns?.portId ?? NONE}
      choices={[{ id: NONE, name: 'nothing' }, ...show.ports.map((p) => ({ id: p.id, name: `port ${p.name}` }))]}
      onPick={(id) =>
        perform(
          setUnitField(show, unit.id, 'returns', id === NONE ? null : { portId: id, thru: returns?.thru ?? false }),
          'move a cable',
        )
      }
    />
  );
}

/** Both cables of a unit, side by side, each called by whose it is. */
export const CablePicksOf = ({ unit }: { readonly unit: Unit }) => (
  <div style={{ display: 'grid', gridTemplateColumns: '1fr 1fr', gap: 8, marginTop: 4 }}>
    <InputFrom unit={unit} hideLabel label={`${unit.name}: input from`} />
    <OutputTo unit={unit} hideLabel label={`${unit.name}: output back to`} />
  </div>
);
