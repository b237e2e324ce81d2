import { exclusiveTemplateOf } from '../addressing';
import { hearers } from '../meaning';
import { finding, type Check } from './finding';

/** System exclusive passes every channel: two units on one cable with the same message both obey. */
export const exclusiveShared: Check = (show) =>
  show.ports.flatMap((port) => {
    const seen = new Map<string, string>();
    return hearers(show, port.id).flatMap((unit) =>
      unit.profile.controls.flatMap(({ id, name, encoding }) => {
        const template = exclusiveTemplateOf(encoding);
        if (template === null) return [];
        const other = seen.get(template);
        seen.set(template, unit.name);
        if (other === undefined || other === unit.name) return [];
        const data = { unit: unit.name, other, control: name };
        return [finding('rig.exclusive-shared', 'warning', { in: 'unit', unitId: unit.id, controlId: id }, data)];
      }),
    );
  });
