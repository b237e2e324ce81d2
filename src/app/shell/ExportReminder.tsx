import { say } from '../state/desk';
import { putOffExport, useExportDue } from '../state/exported';
import { exportShow } from '../state/exports';
import { useShow } from '../state/store';
import { Button, MainButton } from '../widgets/controls';
import { HeadSlip } from '../widgets/shellParts';

/** A show that is nowhere but in a browser which may clear it away: a file of it is wanted. */
export function ExportReminder() {
  const show = useShow();
  const days = useExportDue((s) => s.days);
  if (days === null) return null;
  return (
    <HeadSlip role="status" aria-label="Export reminder">
      <span>
        This show was not exported for {days} days, and the browser may clear its storage away when the disk is full.
      </span>
      <MainButton onPress={() => void exportShow(show, true).then(say)}>Export show</MainButton>
      <Button onPress={putOffExport}>Later</Button>
    </HeadSlip>
  );
}
