import {
  addressOf,
  encodeValue,
  hasTwoStates,
  isContinuous,
  isTap,
  labelOf,
  timeText,
  valueRange,
  worstOf,
  type Control,
  type Time,
} from '../addressing';
import { boatShow, labelsOf } from '../feet';
import { patchSheet, storingSteps, type PatchRow } from '../meaning';
import { toHex } from '../midi';
import { indexShow, pageTitle, pagesOf, type Show, type Unit } from '../show';
import type { ShowTonight } from '../tonight';
import type { SheetCounting } from './figures';
import { DESK, column, table, type Sheet, type SheetPart } from './sheet';

/** How long a unit takes, and where each figure is from: a lantern stands on these. */
function timesTable({ profile, slots }: Unit): SheetPart {
  const { times, variants, controls } = profile;
  const row = (what: string, time: Time): string[] => [
    what,
    time.worst === null ? `${time.typical} (up to ${worstOf(time)})` : timeText(time),
    [time.source, time.date ?? ''].filter((t) => t !== '').join(' '),
  ];
  const own = slots.flatMap(({ index, name, recall }) =>
    recall ? [row(`${labelOf(profile.plan, index)} ${name}`, recall)] : [],
  );
  const columns = [column('Time', 2.4, { strong: true }), column('ms', 1.6, { figures: true }), column('From', 2)];
  return table('Times', columns, [
    row('From a program change to the sound', times.recall),
    ...own,
    row('Until it listens again after one', times.settle),
    ...(variants ? [row(variants.word, times.variant)] : []),
    ...(controls.length > 0 ? [row('Control', times.control)] : []),
  ]);
}

/** A unit's numbers: presets, variants and controls, in the chosen counting, and its times. */
export function numberChart(unit: Unit, counting: SheetCounting): Sheet {
  const { profile, channel } = unit;
  const first = counting === 'one' ? 1 : 0;
  const banks = profile.plan.bank.send !== 'none';
  const parts: SheetPart[] = [
    table(
      'Presets',
      [
        column('Preset', 1.2, { strong: true }),
        column('Name', 3, { strong: true }),
        ...(banks ? [column('Bank', 0.8, { figures: true })] : []),
        column('Program', 1, { figures: true }),
      ],
      unit.slots
        .toSorted((a, b) => a.index - b.index)
        .map((slot) => {
          const address = addressOf(profile.plan, slot.index);
          const figures = address ? [String(address.bank + first), String(address.program + first)] : ['', 'none'];
          return [labelOf(profile.plan, slot.index), slot.name, ...(banks ? figures : figures.slice(1))];
        }),
    ),
  ];
  const { variants } = profile;
  if (variants) {
    const rows = variants.names.map((name, i) => [
      // As one counts them at the unit, unless the bytes are meant.
      String(i + (counting === 'zero' ? 0 : 1)),
      name,
      encodeValue(variants.encoding, channel, i)
        .map((b) => toHex(b, ' ').toUpperCase())
        .join(' · '),
    ]);
    parts.push(
      table(variants.word, [column(variants.word, 1.2, { strong: true }), column('Name', 2), column('Bytes', 3)], rows),
    );
  }
  if (profile.controls.length > 0) {
    const rows = profile.controls.map((control) => {
      const { encoding } = control;
      const { high } = valueRange(encoding);
      const number = 'number' in encoding ? String(encoding.number + (counting === 'one' ? 1 : 0)) : '';
      return [
        control.name,
        number,
        valuesOf(control),
        encodeValue(encoding, channel, high)
          .map((b) => toHex(b, ' ').toUpperCase())
          .join(' · '),
      ];
    });
    parts.push(
      table(
        'Controls',
        [
          column('Control', 2, { strong: true }),
          column('Number', 0.9, { figures: true }),
          column('Values', 2.4),
          column('Bytes at the highest', 2.2),
        ],
        rows,
      ),
    );
  }
  parts.push(timesTable(unit));
  const counted = {
    zero: 'Numbers are counted from 0',
    one: 'Numbers are counted from 1',
    label: 'Presets are named as the unit shows them; banks and programs are counted from 0',
  };
  return {
    id: `numbers-${unit.id}`,
    kind: 'Number chart',
    title: unit.name,
    about: `${profile.name}${profile.firmware === '' ? '' : `, firmware ${profile.firmware}`}. Channel ${channel}. ${counted[counting]}.`,
    parts,
    wide: false,
    type: DESK,
  };
}

/** What values a control has, in a few words. */
function valuesOf({ encoding, options }: Control): string {
  const { low, high } = valueRange(encoding);
  if (isTap(encoding)) return 'tap';
  if (hasTwoStates(encoding)) return 'off, on';
  if (!isContinuous(encoding) && options.length > 0) return options.join(', ');
  return `${low} to ${high}${'unit' in encoding && encoding.unit !== '' ? ` ${encoding.unit}` : ''}`;
}

const patchRows = (rows: readonly PatchRow[]): string[][] =>
  rows.map((r) => [
    String(r.number),
    r.from,
    r.splitter ? `${r.fromSocket}, splitter` : r.fromSocket,
    r.to,
    r.cable === 'usb' ? 'USB' : '5-pin',
    r.listens === null ? '' : r.listens === 'all' ? 'all' : String(r.channel),
    r.player,
    r.spare,
  ]);

const PATCH = [
  column('Cable', 0.6, { figures: true }),
  column('From', 1.5, { strong: true }),
  column('Socket', 0.9),
  column('Into', 1.5, { strong: true }),
  column('Kind', 0.7),
  column('Channel', 0.8, { figures: true }),
  column('Who', 1),
  column('Instead, when it fails', 2.4),
];

/** Every cable of the stage with its two ends, what is used when a part fails, and the cables for when the computer is gone. */
export function patchPaper(show: ShowTonight): Sheet {
  const boats = show.feet.filter((f) => f.boat.length > 0);
  return {
    id: 'patch',
    kind: 'Patch sheet',
    title: show.title,
    about: 'Every cable with its two ends.',
    parts: [
      table('Cables', PATCH, patchRows(patchSheet(show))),
      ...boats.map(({ id }) =>
        table(
          `When the computer is gone: ${indexShow(show).units.get(id)?.name ?? ''} instead`,
          PATCH,
          patchRows(patchSheet(boatShow(show, id))),
        ),
      ),
    ],
    wide: true,
    type: DESK,
  };
}

/** How the panel of a unit has to stand in each state that others call, to be ticked off. Null where nothing calls it. */
export function storedStates(show: Show, unit: Unit): Sheet | null {
  const steps = storingSteps(show, unit);
  if (steps.length === 0) return null;
  return {
    id: `stored-${unit.id}`,
    kind: 'Stored states',
    title: unit.name,
    about: 'Go to the state, set the panel, press store.',
    parts: [
      table(
        'States',
        [
          column('Done', 0.6),
          column('State', 1, { strong: true }),
          column('Name', 2, { strong: true }),
          column('Program', 0.8, { figures: true }),
          ...unit.profile.panel.map((name) => column(name, 1)),
          column('Called by', 2),
        ],
        steps.map((s) => [
          '☐',
          s.label,
          s.name,
          s.program === null ? '' : String(s.program),
          ...s.panel.map((p) => p.setting ?? '?'),
          s.calledBy.map((c) => [c.unit, c.label, c.variant].filter((x) => x !== null).join(' ')).join('; '),
        ]),
      ),
    ],
    wide: unit.profile.panel.length > 2,
    type: DESK,
  };
}

/** Millimetres of a strip that fit across a sheet of paper, A4 or Letter, held upright. */
const SHEET_WIDTH = 186;

/** Strips for the switches of every page, in their true size. Null where the unit is no foot controller. */
export function switchStrips(show: Show, unit: Unit): Sheet | null {
  const { controller } = unit.profile;
  if (!controller) return null;
  const across = Math.max(1, Math.floor(SHEET_WIDTH / controller.pitch));
  const parts = pagesOf(show, unit.id).map((page): SheetPart => {
    const labels = labelsOf(show, unit.id, page.id);
    const rows = [...new Set(labels.map((l) => l.row))].flatMap((row) => {
      const own = labels.filter((l) => l.row === row);
      const pieces = Math.ceil(own.length / across);
      const all = Array.from({ length: pieces }, (_, i) => own.slice(i * across, (i + 1) * across));
      // A strip with nothing on it is not cut out.
      return all.filter((strip) => strip.some((cell) => cell.name !== '' || cell.shown !== ''));
    });
    return { kind: 'strips', name: pageTitle(show, unit.id, page.id), pitch: controller.pitch, rows };
  });
  return {
    id: `strips-${unit.id}`,
    kind: 'Switch strips',
    title: unit.name,
    about: `${controller.pitch} mm from switch to switch: print at 100 %. What is wider than a sheet comes in pieces.`,
    parts,
    wide: false,
    type: DESK,
  };
}
