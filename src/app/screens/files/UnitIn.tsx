import { useMemo, useState } from 'react';
import type { UnitFile } from '../../../core/formats/unit-file';
import type { Read } from '../../../core/problems';
import { addUnit, applyEdit, freeChannel, freeName, newUnit, takeMap, type Show } from '../../../core/show';
import { Pick } from '../../widgets/Pick';
import { newId } from '../../state/desk';
import { useShow } from '../../state/store';
import { Preview } from './Preview';

const NEW = 'new';

/** A unit's map before it comes into the show: as a unit of its own, or in the place of another's map. */
export function UnitIn({
  file,
  from,
  onDone,
}: {
  readonly file: UnitFile;
  readonly from: string;
  readonly onDone: () => void;
}) {
  const show = useShow();
  const [into, setInto] = useState(NEW);
  const read = useMemo(() => withUnit(show, file, into), [show, file, into]);
  return (
    <Preview read={read} from={from} onDone={onDone}>
      <Pick
        label={`${file.unit.name} comes`}
        width="340px"
        value={into}
        choices={[
          { id: NEW, name: 'as a new unit' },
          ...show.units.map((u) => ({ id: u.id, name: `as the map of ${u.name}, in place of its own` })),
        ]}
        onPick={setInto}
      />
    </Preview>
  );
}

function withUnit(show: Show, { unit, house }: UnitFile, into: string): Read<Show> {
  if (into === NEW) {
    const name = freeName(
      unit.name,
      show.units.map((u) => u.name),
    );
    const portId = show.ports[0]?.id;
    const own = newUnit(newId(), name, unit.monogram, unit.profile, {
      channel: freeChannel(show),
      versions: unit.versions,
      slots: unit.slots,
      input: portId === undefined ? null : { from: 'port', portId },
    });
    return { value: applyEdit(show, addUnit(show, own, null, house)), problems: [] };
  }
  // Shared control numbers of another show mean nothing here.
  const profile = { ...unit.profile, controls: unit.profile.controls.map((c) => ({ ...c, houseId: null })) };
  const change = takeMap(show, { ...unit, profile, versions: [] }, into, true, newId);
  if (!change.ok) return { value: undefined, problems: change.problems };
  return { value: change.edit ? applyEdit(show, change.edit) : show, problems: [] };
}
