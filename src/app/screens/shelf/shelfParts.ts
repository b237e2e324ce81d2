import styled from 'styled-components';
import { narrow } from '../../theme/narrow';
import { desk, font } from '../../theme/tokens';

export const Page = styled.main`
  min-height: 100dvh;
  display: grid;
  grid-template-columns: minmax(0, 5fr) minmax(0, 6fr);
  ${narrow} {
    grid-template-columns: minmax(0, 1fr);
    & > section {
      padding: 28px 20px;
    }
    & h1 {
      font-size: 40px;
    }
  }
`;

export const Hero = styled.section`
  background: ${desk.night};
  color: ${desk.nightText};
  padding: 64px 56px;
  display: flex;
  flex-direction: column;
  gap: 26px;
  justify-content: center;
  & h1 {
    font: 800 60px/0.98 ${font.display};
    letter-spacing: -0.015em;
  }
  & p {
    max-width: 30em;
    font-size: 16px;
    color: ${desk.nightSoft};
  }
`;

export const Key = styled.ul`
  display: grid;
  gap: 10px;
  margin: 0;
  padding: 0;
  list-style: none;
  & li {
    display: flex;
    align-items: center;
    gap: 14px;
    font-size: 15px;
  }
`;

export const Side = styled.section`
  padding: 64px 56px;
  display: flex;
  flex-direction: column;
  justify-content: center;
  gap: 24px;
  & h2 {
    font-size: 24px;
  }
`;

export const Row = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 10px;
  &[hidden] {
    display: none;
  }
`;

export const Again = styled.div`
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 8px;
  padding: 10px 14px;
  border-left: 4px solid ${desk.lamp};
  background: ${desk.lampWash};
`;

export const List = styled.ul`
  margin: 0;
  padding: 0;
  list-style: none;
  border-top: 1.5px solid ${desk.ink};
  & li {
    display: flex;
    align-items: center;
    gap: 12px;
    border-bottom: 1px solid ${desk.line};
  }
  & a {
    flex: 1;
    min-width: 0;
    padding: 12px 4px;
    color: ${desk.ink};
    font: 700 18px/1.2 ${font.display};
    text-decoration: none;
  }
  & a:hover {
    color: ${desk.tide};
  }
`;
