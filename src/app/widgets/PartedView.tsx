import type { ReactNode } from 'react';
import styled from 'styled-components';
import { narrow } from '../theme/narrow';
import { desk } from '../theme/tokens';
import { PartLinks } from './PartLinks';

const Page = styled.div`
  height: 100%;
  display: grid;
  grid-template-rows: auto minmax(0, 1fr);
  @media print {
    display: block;
    height: auto;
  }
`;

const Head = styled.header`
  display: flex;
  align-items: end;
  gap: 16px;
  padding: 12px 24px 0;
  border-bottom: 1.5px solid ${desk.line};
  & > h1 {
    font-size: 26px;
    padding-bottom: 8px;
  }
  ${narrow} {
    flex-wrap: wrap;
    gap: 4px 12px;
    padding: 8px 12px 0;
    & > h1 {
      padding-bottom: 0;
    }
  }
`;

interface Props {
  readonly title: string;
  /** What the links to its parts are called. */
  readonly label: string;
  readonly base: string;
  readonly parts: readonly (readonly [path: string, name: string])[];
  readonly current: string;
  readonly children: ReactNode;
}

/** A view of several parts, of which one is open: its title, the ways to the parts, and the part. */
export const PartedView = ({ title, children, ...links }: Props) => (
  <Page>
    <Head>
      <h1>{title}</h1>
      <PartLinks {...links} />
    </Head>
    {children}
  </Page>
);
