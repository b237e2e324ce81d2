import { css } from 'styled-components';

/** Windows this narrow, or zoomed to twice the size: what lies side by side lies one below the other. */
export const narrow = '@media screen and (max-width: 820px)';

/** Panes beside each other, where there is room; else the view is one column that scrolls as one. */
export const stacked = css`
  ${narrow} {
    display: flex;
    flex-direction: column;
    height: 100%;
    overflow: hidden auto;
    & > * {
      flex: none;
      min-width: 0;
      max-width: 100%;
      border-left: 0;
      border-right: 0;
    }
  }
`;

/** A pane of a stacked view that scrolls by itself, because it draws only what is in sight: nearly as high as the window. */
export const tallPane = css`
  ${narrow} {
    height: max(300px, calc(100dvh - 150px));
  }
`;
