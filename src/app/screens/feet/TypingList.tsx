import styled from 'styled-components';
import { typingList, type TypedRow } from '../../../core/feet';
import { MENU_FIELDS, changeFeet, feetOf, type MenuField, type Unit } from '../../../core/show';
import { Check } from '../../widgets/Check';
import { SignButton, Soft } from '../../widgets/controls';
import { PlainTable } from '../../widgets/plainTable';
import { perform, tickTyped } from '../../state/desk';
import { useFeet } from '../../state/feet';
import { useShow } from '../../state/store';
import { desk } from '../../theme/tokens';
import { SmallHead } from './parts';

const Order = styled.ol`
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
  margin: 0;
  padding: 0;
  list-style: none;
  & > li {
    display: flex;
    align-items: center;
    padding-left: 10px;
    border: 1px solid ${desk.line};
    border-radius: 4px 12px 4px 12px;
    background: ${desk.field};
  }
`;

const FIELD_WORDS: Readonly<Record<MenuField, string>> = {
  page: 'Page',
  name: 'Name',
  switch: 'Switch',
  trigger: 'On',
  kind: 'Message',
  channel: 'Channel',
  number: 'Number',
  value: 'Value',
};

/** All that has to be typed into a controller that takes nothing over its cable, ticked off as one goes. */
export function TypingList({ unit }: { readonly unit: Unit }) {
  const show = useShow();
  const rows = typingList(show, unit.id);
  const typed = useFeet((s) => s.typed);
  const done = new Set(typed);
  const { menus } = feetOf(show, unit.id);
  const set = (next: readonly MenuField[]): void =>
    void perform(
      changeFeet(show, unit.id, (f) => ({ ...f, menus: [...next] })),
      'change the order of a list',
    );
  const move = (i: number, by: 1 | -1): void => {
    const next = [...menus];
    next.splice(i + by, 0, ...next.splice(i, 1));
    set(next);
  };
  const count = rows.filter((r) => done.has(r.key)).length;
  return (
    <section style={{ display: 'grid', gap: 10 }} aria-label="Typing list">
      <SmallHead>By hand</SmallHead>
      <p>
        {unit.name} takes nothing over its cable: type this in, and tick it off. {count} of {rows.length} done. Numbers
        are as on the wire, from 0.
      </p>
      <Soft style={{ fontSize: 13 }}>In the order in which its menus ask:</Soft>
      <Order aria-label="Order of its menus">
        {menus.map((field, i) => (
          <MenuOrder key={field} field={field} index={i} move={move} menus={menus} set={set} />
        ))}
        {MENU_FIELDS.filter((f) => !menus.includes(f)).map((field) => (
          <li key={field}>
            <Soft>{FIELD_WORDS[field]}</Soft>
            <SignButton aria-label={`With ${FIELD_WORDS[field].toLowerCase()}`} onPress={() => set([...menus, field])}>
              +
            </SignButton>
          </li>
        ))}
      </Order>
      {rows.length === 0 ? (
        <p>Nothing to type yet: the pages are empty.</p>
      ) : (
        <TypingTable menus={menus} rows={rows} done={done} />
      )}
    </section>
  );
}

interface TypingTableProps {
  readonly menus: readonly MenuField[];
  readonly rows: readonly TypedRow[];
  readonly done: Set<string>;
}

/** What is typed into the controller, line by line, ticked off. */
function TypingTable({ menus, rows, done }: TypingTableProps) {
  return (
    <PlainTable aria-label="What to type">
      <thead>
        <tr>
          <th scope="col">Done</th>
          {menus.map((m) => (
            <th key={m} scope="col">
              {FIELD_WORDS[m]}
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {rows.map((row) => (
          <tr key={row.key}>
            <td>
              <Check
                aria-label={`Done: ${menus.map((m) => row.fields[m]).join(' ')}`}
                isSelected={done.has(row.key)}
                onChange={(on) => tickTyped(row.key, on)}
              />
            </td>
            {menus.map((m) => (
              <td key={m}>{row.fields[m]}</td>
            ))}
          </tr>
        ))}
      </tbody>
    </PlainTable>
  );
}

interface MenuOrderProps {
  readonly field: MenuField;
  readonly index: number;
  readonly move: (i: number, by: 1 | -1) => void;
  readonly menus: readonly MenuField[];
  readonly set: (next: readonly MenuField[]) => void;
}

/** A menu of the controller, moved to where it comes. */
function MenuOrder({ field, index, move, menus, set }: MenuOrderProps) {
  return (
    <li>
      {FIELD_WORDS[field]}
      <SignButton aria-label={`${FIELD_WORDS[field]} earlier`} isDisabled={index === 0} onPress={() => move(index, -1)}>
        ‹
      </SignButton>
      <SignButton
        aria-label={`${FIELD_WORDS[field]} later`}
        isDisabled={index === menus.length - 1}
        onPress={() => move(index, 1)}
      >
        ›
      </SignButton>
      <SignButton
        aria-label={`Without ${FIELD_WORDS[field].toLowerCase()}`}
        onPress={() => set(menus.filter((m) => m !== field))}
      >
        ×
      </SignButton>
    </li>
  );
}
