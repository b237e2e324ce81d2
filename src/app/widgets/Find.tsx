import { useRef, useState } from 'react';
import { ComboBox, ListBox } from 'react-aria-components';
import styled from 'styled-components';
import { Input, Label } from './controls';
import { Drop, DropItem } from './Pick';

export interface Found {
  readonly id: string;
  readonly name: string;
  /** Small words behind the name. */
  readonly aside?: string;
}

const Root = styled(ComboBox)`
  display: grid;
  gap: 3px;
  min-width: 0;
`;

const Aside = styled.small`
  margin-left: auto;
  padding-left: 14px;
  opacity: 0.75;
  white-space: nowrap;
`;

const NONE: readonly Found[] = [];

const STOPS = 'input:not(:disabled), button:not(:disabled), a[href], [tabindex="0"]';

/** What Tab would go to from a field, in the same part of the page. */
function nextStop(field: HTMLElement | null): HTMLElement | undefined {
  const around = field?.closest('[role="dialog"], section, aside, main');
  const stops = [...(around?.querySelectorAll<HTMLElement>(STOPS) ?? [])];
  return stops.find(
    (stop) =>
      stop.tabIndex >= 0 &&
      stop.checkVisibility() &&
      field!.compareDocumentPosition(stop) & Node.DOCUMENT_POSITION_FOLLOWING,
  );
}

interface Props {
  readonly label: string;
  readonly hideLabel?: boolean;
  /** What fits the text, best first. */
  readonly search: (text: string) => readonly Found[];
  readonly text: string;
  readonly onText: (text: string) => void;
  readonly onPick: (id: string) => void;
  /** Enter on a text that no list entry is chosen for. */
  readonly onEnter?: () => void;
  readonly placeholder?: string;
  readonly inputId?: string;
}

/** Type a part, take one. The list is made by `search`; what is typed stays until something is taken. */
export function Find({ label, hideLabel = false, search, text, onText, onPick, onEnter, placeholder, inputId }: Props) {
  const input = useRef<HTMLInputElement>(null);
  const [empty, setEmpty] = useState(false);
  /**
   * Lets go of the field first: a list that belongs to it would open again over what comes next. Where what was
   * taken brings new entries it does so even then, so the list is empty for a frame, which closes it.
   */
  const leave = (then: () => void): void => {
    input.current?.blur();
    then();
    setEmpty(true);
    requestAnimationFrame(() => {
      setEmpty(false);
      // Where nothing else took the keyboard, the next field does.
      if (document.activeElement === document.body) nextStop(input.current)?.focus();
    });
  };
  return (
    <Root
      {...(hideLabel ? { 'aria-label': label } : {})}
      items={empty ? NONE : search(text)}
      inputValue={text}
      onInputChange={onText}
      selectedKey={null}
      onSelectionChange={(key) => key !== null && leave(() => onPick(String(key)))}
      menuTrigger="focus"
      allowsCustomValue
      allowsEmptyCollection={false}
    >
      {!hideLabel && <Label>{label}</Label>}
      <Input
        ref={input}
        {...(inputId === undefined ? {} : { id: inputId })}
        {...(placeholder === undefined ? {} : { placeholder })}
        autoComplete="off"
        onKeyDown={(e) => {
          if (
            e.key === 'Enter' &&
            !e.nativeEvent.isComposing &&
            onEnter &&
            e.currentTarget.getAttribute('aria-activedescendant') === null
          ) {
            leave(onEnter);
          }
        }}
      />
      <Drop>
        <ListBox<Found>>
          {(item) => (
            <DropItem id={item.id} textValue={item.name}>
              {item.name}
              {item.aside !== undefined && <Aside>{item.aside}</Aside>}
            </DropItem>
          )}
        </ListBox>
      </Drop>
    </Root>
  );
}
