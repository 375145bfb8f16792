import { Combobox, UnstyledButton, useCombobox } from '@mantine/core';
import { IconChevronDown } from '@tabler/icons-react';
import { useEffect, useRef, useState } from 'react';
import { type Choice, matching } from './choices.ts';
import styles from './ui.module.css';

interface CellSelectProps {
  readonly label: string;
  readonly value: string;
  /** What there is to choose; worked out when the list opens where that takes long. */
  readonly choices: readonly Choice[] | (() => readonly Choice[]);
  /** What the value is called, where the choices are not known before the list opens. */
  readonly shownAs?: string;
  readonly onPick: (value: string) => void;
  /** Shown where the value is none of the choices. */
  readonly placeholder?: string;
  readonly bordered?: boolean;
  readonly autoOpen?: boolean;
  readonly tabIndex?: number;
  /** Found by the grid that it stands in. */
  readonly place?: string;
  readonly onClose?: () => void;
}

/** So many are drawn; typing finds the rest. */
const mostShown = 150;

/**
 * One of several, in the place of a value: Enter, a click or typing opens the list; typing finds in it. The list is
 * only there while it is open, so that a table may have hundreds of these.
 */
export function CellSelect({
  label,
  value,
  choices: given,
  shownAs,
  onPick,
  placeholder = '—',
  bordered,
  autoOpen,
  tabIndex,
  place,
  onClose,
}: CellSelectProps) {
  const [typed, setTyped] = useState<string | null>(autoOpen ? '' : null);
  const button = useRef<HTMLButtonElement>(null);
  const wasOpen = useRef(false);
  const open = typed !== null;
  useEffect(() => {
    if (wasOpen.current && !open) button.current?.focus();
    wasOpen.current = open;
  }, [open]);
  const close = () => {
    setTyped(null);
    onClose?.();
  };
  const pick = (picked: string) => {
    close();
    if (picked !== value) onPick(picked);
  };
  const shown =
    shownAs ?? (typeof given === 'function' ? undefined : given.find((choice) => choice.value === value)?.label);
  const target = (
    <UnstyledButton
      ref={button}
      className={styles.select}
      role="combobox"
      aria-label={label}
      aria-haspopup="listbox"
      aria-expanded={open}
      tabIndex={tabIndex}
      data-place={place}
      data-bordered={bordered || undefined}
      data-empty={shown === undefined || undefined}
      onClick={() => (open ? close() : setTyped(''))}
      onKeyDown={(event) => {
        if (event.ctrlKey || event.metaKey || event.altKey) return;
        const isCharacter = /^[\p{L}\p{N}]$/u.test(event.key) || (open && event.key.length === 1);
        if (isCharacter) {
          // Typed fast, the next characters come before the list has the focus.
          event.preventDefault();
          event.stopPropagation();
          setTyped((before) => (before ?? '') + event.key);
        } else if (event.key === 'Enter' && typed !== null && typed !== '') {
          // And so may Enter: it picks what the list has first, as it would there.
          event.preventDefault();
          event.stopPropagation();
          const first = matching(typeof given === 'function' ? given() : given, typed).at(0);
          if (first) pick(first.value);
        } else if (!open && place === undefined && (event.key === 'ArrowDown' || event.key === 'ArrowUp')) {
          event.preventDefault();
          setTyped('');
        }
      }}
    >
      <span>{shown ?? placeholder}</span>
      <IconChevronDown size={12} aria-hidden="true" />
    </UnstyledButton>
  );
  return (
    <span className={styles.choice} data-bordered={bordered || undefined}>
      {target}
      {typed !== null && (
        <OpenList
          label={label}
          value={value}
          choices={matching(typeof given === 'function' ? given() : given, typed)}
          typed={typed}
          onType={setTyped}
          onPick={pick}
          onClose={close}
        />
      )}
    </span>
  );
}

interface OpenListProps extends Pick<CellSelectProps, 'label' | 'value' | 'onPick'> {
  readonly choices: readonly Choice[];
  readonly typed: string;
  readonly onType: (text: string) => void;
  readonly onClose: () => void;
}

/** The list under its button, with a field to find in it. The button stays where it is: what is typed fast goes on. */
function OpenList({ label, value, choices, typed, onType, onPick, onClose }: OpenListProps) {
  const store = useCombobox({ opened: true, onOpenedChange: (opened) => !opened && onClose() });
  useEffect(() => {
    store.focusSearchInput();
    // Once, when it opens.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, []);
  useEffect(() => {
    if (typed !== '' || !choices.some((choice) => choice.value === value)) store.selectFirstOption();
    else store.selectActiveOption();
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [typed]);
  return (
    <Combobox
      store={store}
      onOptionSubmit={onPick}
      position="bottom-start"
      width="max-content"
      shadow="none"
      withinPortal
    >
      <Combobox.DropdownTarget>
        <span className={styles.anchor} />
      </Combobox.DropdownTarget>
      <Combobox.Dropdown style={{ minWidth: 170 }}>
        <Combobox.Search
          size="xs"
          aria-label={`Find: ${label}`}
          placeholder="type to find"
          value={typed}
          onChange={(event) => onType(event.currentTarget.value)}
          onBlur={onClose}
          onKeyDown={(event) => {
            if (event.key === 'Escape') {
              event.stopPropagation();
              onClose();
            }
          }}
        />
        <Combobox.Options mah={260} style={{ overflowY: 'auto' }} aria-label={label}>
          {choices.slice(0, mostShown).map((choice) => (
            <Combobox.Option
              key={choice.value}
              value={choice.value}
              active={choice.value === value}
              className={styles.option}
            >
              {choice.label}
            </Combobox.Option>
          ))}
          {choices.length === 0 && <Combobox.Empty>Nothing is called so</Combobox.Empty>}
          {choices.length > mostShown && (
            <Combobox.Empty>Type to find {choices.length - mostShown} more</Combobox.Empty>
          )}
        </Combobox.Options>
      </Combobox.Dropdown>
    </Combobox>
  );
}
