import { useParams } from 'react-router';
import { PartedView } from '../widgets/PartedView';
import { useShow } from '../state/store';
import { ExportPart } from './files/ExportPart';
import { ImportPart } from './files/ImportPart';
import { PaperPart } from './files/PaperPart';
import { VersionsPart } from './files/VersionsPart';

const PARTS = [
  ['', 'Paper'],
  ['export', 'Export'],
  ['import', 'Import'],
  ['versions', 'Versions and storage'],
] as const;

/** What leaves the show: paper, tables; and its earlier states. */
export function FilesScreen() {
  const show = useShow();
  const { part = '' } = useParams();
  return (
    <PartedView title="Files" label="Parts of files" base={`/show/${show.id}/files`} parts={PARTS} current={part}>
      {part === 'versions' ? (
        <VersionsPart />
      ) : part === 'export' ? (
        <ExportPart />
      ) : part === 'import' ? (
        <ImportPart />
      ) : (
        <PaperPart />
      )}
    </PartedView>
  );
}
