import type { Encoding } from '../../../core/addressing';
import { Pick } from '../../widgets/Pick';
import type { EncodingField } from './encodingFields';

type Curved = Extract<Encoding, { curve: unknown }>;

export function CurveFields({
  encoding,
  draft,
  onChange,
}: {
  readonly encoding: Curved;
  readonly draft: (field: EncodingField) => React.ReactNode;
  readonly onChange: (encoding: Encoding) => void;
}) {
  const pick = (curve: Curved['curve']): void => {
    const points = curve === 'table' && encoding.points.length < 2 ? [encoding.low, encoding.high] : encoding.points;
    onChange({ ...encoding, curve, points });
  };
  return (
    <>
      <Pick
        label="Curve"
        value={encoding.curve}
        onPick={pick}
        choices={[
          { id: 'linear', name: 'straight' },
          { id: 'logarithmic', name: 'logarithmic' },
          { id: 'table', name: 'a table' },
        ]}
      />
      {encoding.curve === 'table' && (
        <div data-wide>{draft({ key: 'points', label: 'Figures at equal steps', takes: 'figures' })}</div>
      )}
    </>
  );
}
