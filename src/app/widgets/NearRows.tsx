import type { ReactNode } from 'react';
import { useNear } from './useNear';

/** So many rows are drawn, or left out, together. */
const TOGETHER = 16;

interface Props<T> {
  readonly rows: readonly T[];
  readonly columns: number;
  /** How high a row is, about, in pixels. */
  readonly height: number;
  /** All are drawn, wherever they are. */
  readonly all?: boolean;
  readonly children: (row: T, place: number) => ReactNode;
}

/** The rows of a long table: those are drawn that are in sight, or nearly. The table says how many there are. */
export function NearRows<T>({ rows, columns, height, all = false, children }: Props<T>) {
  if (all) return <tbody>{rows.map((row, i) => children(row, i))}</tbody>;
  const groups = Array.from({ length: Math.ceil(rows.length / TOGETHER) }, (_, i) => i * TOGETHER);
  return groups.map((from) => (
    <Group key={from} columns={columns} height={height * Math.min(TOGETHER, rows.length - from)}>
      {() => rows.slice(from, from + TOGETHER).map((row, i) => children(row, from + i))}
    </Group>
  ));
}

function Group({
  columns,
  height,
  children,
}: {
  readonly columns: number;
  readonly height: number;
  readonly children: () => ReactNode;
}) {
  const { ref, near, height: seen } = useNear();
  return (
    <tbody ref={ref}>
      {near ? (
        children()
      ) : (
        <tr aria-hidden style={{ height: seen ?? height }}>
          <td colSpan={columns} style={{ border: 0 }} />
        </tr>
      )}
    </tbody>
  );
}
