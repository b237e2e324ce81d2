import styled from 'styled-components';
import { desk, font } from '../theme/tokens';
import { GUTTER } from './lineShape';

export const Box = styled.div`
  position: relative;
  margin-left: ${GUTTER}px;
  cursor: text;
`;

export const SectionName = styled.h2<{ readonly $size: number }>`
  position: absolute;
  top: 0;
  font-size: ${(p) => p.$size}px;
  line-height: ${(p) => p.$size * 1.18}px;
  white-space: nowrap;
  overflow: hidden;
  text-overflow: ellipsis;
  & > button {
    padding: 0;
    border: 0;
    background: none;
    font: inherit;
    cursor: pointer;
  }
  & > button:hover {
    text-decoration: underline;
  }
  & small {
    margin-left: 10px;
    font: 500 ${(p) => Math.max(9, p.$size * 0.76)}px / 1 ${font.text};
    color: ${desk.inkSoft};
  }
`;

/** A line of text under the bars, from its place on. */
export const RemarkText = styled.button<{ readonly $size: number }>`
  position: absolute;
  overflow: hidden;
  padding: 0 4px 0 5px;
  border: 0;
  border-left: 2px solid ${desk.tide};
  background: none;
  color: ${desk.tide};
  font: italic 600 ${(p) => p.$size}px / 1.25 ${font.text};
  text-align: left;
  text-overflow: ellipsis;
  white-space: nowrap;
  cursor: pointer;
  &:hover {
    text-decoration: underline;
  }
`;

/** Lies over a sweep's curve, to choose it by pointer and keyboard. */
export const SweepHandle = styled.button`
  position: absolute;
  padding: 0;
  border: 0;
  border-radius: 3px;
  background: transparent;
  cursor: pointer;
  &:hover {
    background: rgb(10 81 96 / 14%);
  }
`;
