import styled from 'styled-components';
import { desk } from '../../theme/tokens';

/** Two columns in these shares, where there is room. */
export const Columns = styled.div<{ $right: number }>`
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, ${({ $right }) => $right}fr);
  gap: 30px;
  align-items: start;
  padding: 14px 24px 30px;
  overflow: auto;
  @media (max-width: 900px) {
    grid-template-columns: minmax(0, 1fr);
  }
`;

/** A ledger of what can be done on the left, what came of it on the right. */
export const Ledger = styled(Columns).attrs({ $right: 0.65 })`
  padding-top: 4px;
`;

export const Line = styled.section`
  display: grid;
  grid-template-columns: 150px minmax(0, 1fr);
  gap: 6px 18px;
  padding: 14px 0;
  border-bottom: 1px solid ${desk.line};
  & > h2 {
    font-size: 17px;
    padding-top: 18px;
  }
  & > p {
    grid-column: 2;
    color: ${desk.inkSoft};
    font-size: 13px;
  }
  @media (max-width: 640px) {
    grid-template-columns: minmax(0, 1fr);
    & > h2 {
      padding-top: 0;
    }
    & > p {
      grid-column: 1;
    }
  }
`;

export const Fields = styled.div`
  display: flex;
  flex-wrap: wrap;
  align-items: end;
  gap: 10px;
`;

/** What came of it, kept in sight while one scrolls. */
export const Aside = styled.aside`
  position: sticky;
  top: 14px;
  margin-top: 14px;
  padding: 14px 16px;
  border: 1.5px solid ${desk.ink};
  border-radius: 4px 18px 4px 18px;
  background: ${desk.sheet};
  & > h2 {
    font-size: 17px;
    margin-bottom: 8px;
  }
  & ul {
    margin: 10px 0 0;
    padding: 0;
    list-style: none;
  }
  & li {
    padding: 7px 0;
    border-top: 1px solid ${desk.line};
    overflow-wrap: anywhere;
  }
`;

export const Differences = styled.ul`
  margin: 12px 0 0;
  padding: 0;
  list-style: none;
  border-top: 1.5px solid ${desk.ink};
  & > li {
    padding: 7px 2px;
    border-bottom: 1px solid ${desk.line};
  }
`;

/** Things of a file, each with what it is here. */
export const Matches = styled.ul`
  margin: 6px 0 0;
  padding: 0;
  list-style: none;
  & > li {
    display: grid;
    grid-template-columns: minmax(0, 1fr) minmax(0, 230px);
    align-items: center;
    gap: 12px;
    padding: 6px 0;
    border-top: 1px solid ${desk.line};
  }
`;

export const ImportPage = styled(Columns).attrs({ $right: 1.6 })`
  & h2 {
    font-size: 20px;
    margin-bottom: 10px;
    overflow-wrap: anywhere;
  }
  & h3 {
    font-size: 15px;
    margin-top: 16px;
  }
  & dl {
    margin: 0;
  }
  & dl > div {
    padding: 8px 0;
    border-top: 1px solid ${desk.line};
  }
  & dt {
    font-weight: 700;
  }
  & dd {
    margin: 0;
    color: ${desk.inkSoft};
  }
`;
