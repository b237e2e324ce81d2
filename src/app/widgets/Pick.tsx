import { ChevronDown } from 'lucide-react';
import { Button, ListBox, ListBoxItem, MenuItem, Popover, Select, SelectValue } from 'react-aria-components';
import styled from 'styled-components';
import { desk } from '../theme/tokens';
import { Label } from './controls';

export interface Choice<T extends string = string> {
  readonly id: T;
  readonly name: string;
}

/** Choices from a table of words, in its order. */
export const choicesOf = <T extends string>(words: Readonly<Record<T, string>>): readonly Choice<T>[] =>
  (Object.keys(words) as T[]).map((id) => ({ id, name: words[id] }));

const Root = styled(Select)`
  /* Its hidden native twin must not stretch the page. */
  position: relative;
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 3px;
  min-width: 0;
`;

const Face = styled(Button)`
  display: flex;
  align-items: center;
  justify-content: space-between;
  gap: 8px;
  min-height: 34px;
  width: 100%;
  padding: 4px 9px;
  border: 1.5px solid ${desk.lineStrong};
  border-radius: 4px;
  background: ${desk.field};
  color: ${desk.ink};
  text-align: left;
  cursor: pointer;
  & > :first-child {
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
`;

export const Drop = styled(Popover)`
  min-width: var(--trigger-width);
  background: ${desk.sheet};
  border: 1.5px solid ${desk.ink};
  border-radius: 4px 12px 4px 12px;
  box-shadow: 0 8px 22px rgb(19 38 45 / 22%);
  overflow: auto;
  padding: 4px;
`;

export const DropItem = styled(ListBoxItem)`
  display: flex;
  align-items: baseline;
  gap: 8px;
  padding: 6px 10px;
  border-radius: 3px;
  cursor: pointer;
  outline: none;
  &[data-focused] {
    background: ${desk.tideWash};
  }
  &[data-selected] {
    font-weight: 700;
  }
`;

/** A line of a menu: what it does, and a word about it. */
export const MenuLine = styled(MenuItem)`
  display: grid;
  padding: 8px 12px;
  border-radius: 3px;
  cursor: pointer;
  outline: none;
  &[data-focused] {
    background: ${desk.tideWash};
  }
`;

interface Props<T extends string> {
  readonly label: string;
  /** Said to a screen reader only. */
  readonly hideLabel?: boolean;
  readonly choices: readonly Choice<T>[];
  readonly value: string;
  readonly onPick: (id: T) => void;
  readonly width?: string;
}

/** One of a few. */
export function Pick<T extends string>({ label, hideLabel = false, choices, value, onPick, width }: Props<T>) {
  const pick = (key: unknown): void => {
    const choice = choices.find((c) => c.id === key);
    if (choice) onPick(choice.id);
  };
  return (
    <Root
      placeholder="choose …"
      selectedKey={value}
      onSelectionChange={pick}
      style={width === undefined ? {} : { width }}
      {...(hideLabel ? { 'aria-label': label } : {})}
    >
      {!hideLabel && <Label>{label}</Label>}
      <Face>
        <SelectValue />
        <ChevronDown size={15} aria-hidden />
      </Face>
      <Drop>
        <ListBox items={choices}>
          {(choice) => (
            <DropItem id={choice.id} textValue={choice.name}>
              {choice.name}
            </DropItem>
          )}
        </ListBox>
      </Drop>
    </Root>
  );
}
