import styled from 'styled-components';

export const Panel = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
`;
