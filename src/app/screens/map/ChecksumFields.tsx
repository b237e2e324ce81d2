import type { Encoding } from '../../../core/addressing';
import { DraftField } from '../../widgets/DraftField';
import { Pick } from '../../widgets/Pick';

type Exclusive = Extract<Encoding, { kind: 'exclusive' }>;

/** A checksum takes a place in the message, `ss`, and covers some of its bytes. */
export function ChecksumFields({
  encoding,
  onChange,
}: {
  readonly encoding: Exclusive;
  readonly onChange: (encoding: Encoding) => string | null;
}) {
  const { checksum, template } = encoding;
  const pick = (kind: string): void => {
    const bare = template.replace(/\s*\bss\b/gi, '');
    if (kind === 'none') void onChange({ ...encoding, template: bare, checksum: null });
    else {
      const placed = /\bss\b/i.test(template) ? template : bare.replace(/\s*F7\s*$/i, ' ss F7');
      const last = placed.trim().split(/\s+/).length - 3;
      const covers = checksum ?? { from: 1, to: Math.max(1, last) };
      void onChange({ ...encoding, template: placed, checksum: { ...covers, kind: kind as 'xor' | 'sum' } });
    }
  };
  const end = (key: 'from' | 'to', label: string) => (
    <DraftField
      label={label}
      value={String(checksum?.[key] ?? '')}
      numeric
      commit={(text) =>
        /^\d{1,3}$/.test(text.trim()) && checksum
          ? onChange({ ...encoding, checksum: { ...checksum, [key]: Number(text) } })
          : 'a whole number'
      }
    />
  );
  return (
    <>
      <Pick
        label="Checksum"
        value={checksum?.kind ?? 'none'}
        onPick={pick}
        choices={[
          { id: 'none', name: 'none' },
          { id: 'sum', name: 'sum to zero' },
          { id: 'xor', name: 'XOR' },
        ]}
      />
      {checksum && end('from', 'Over bytes from (0 is F0)')}
      {checksum && end('to', 'to')}
    </>
  );
}
