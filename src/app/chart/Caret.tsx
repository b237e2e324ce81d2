import { desk } from '../theme/tokens';

export function Caret({ x, top, height }: { readonly x: number; readonly top: number; readonly height: number }) {
  return (
    <svg
      aria-hidden
      width={14}
      height={height}
      style={{ position: 'absolute', left: x - 7, top, pointerEvents: 'none' }}
    >
      <path d="M1 0h12L7 8z" fill={desk.lampDeep} />
      <path d={`M7 6V${height}`} stroke={desk.lampDeep} strokeWidth={2} />
    </svg>
  );
}
