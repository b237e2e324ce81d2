import styled from 'styled-components';
import { say } from '../state/desk';
import { putOffExport, useExportDue } from '../state/exported';
import { exportShow } from '../state/sound';
import { useShow } from '../state/store';
import { desk } from '../theme/tokens';
import { Button, MainButton } from './controls';

const Slip = styled.div`
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 6px 12px;
  padding: 6px 16px;
  border-bottom: 1.5px solid ${desk.ink};
  background: ${desk.lampWash};
`;

/** A show that is nowhere but in a browser which may clear it away: a file of it is wanted. */
export function ExportReminder() {
  const show = useShow();
  const days = useExportDue((s) => s.days);
  if (days === null) return null;
  return (
    <Slip role="status" aria-label="Export reminder">
      <span>
        This show was not exported for {days} days, and the browser may clear its storage away when the disk is full.
      </span>
      <MainButton onPress={() => void exportShow(show, true).then(say)}>Export show</MainButton>
      <Button onPress={putOffExport}>Later</Button>
    </Slip>
  );
}
