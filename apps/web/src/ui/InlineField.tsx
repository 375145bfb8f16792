import { Input, Popover } from '@mantine/core';
import { useEffect, useId, useRef, useState } from 'react';
import { confirmed, fieldOf, typedInto, valueChanged } from './field-state.ts';
import { LinkButton } from './LinkButton.tsx';
import styles from './ui.module.css';

export interface InlineFieldProps {
  readonly value: string;
  readonly label: string;
  /** Takes what was typed; says why where it cannot. */
  readonly onCommit: (text: string) => string | null;
  readonly placeholder?: string;
  readonly unit?: string;
  readonly look?: 'plain' | 'mono' | 'tape' | 'boxed';
  readonly autoFocus?: boolean;
  readonly maxLength?: number;
  /** What is usually meant; anything else may be typed. */
  readonly suggestions?: readonly string[];
  /** After it was taken or given up. */
  readonly onLeave?: () => void;
}

/**
 * A value edited in place: Enter or leaving takes it, Escape gives it up. What is refused stays, marked, with the
 * reason beside it.
 */
export function InlineField({
  value,
  label,
  onCommit,
  placeholder,
  unit,
  look = 'plain',
  autoFocus = false,
  maxLength = 200,
  suggestions,
  onLeave,
}: InlineFieldProps) {
  const [state, setState] = useState(() => fieldOf(value));
  const reasonId = useId();
  const listId = useId();
  const latest = useRef({ state, value, onCommit });
  latest.current = { state, value, onCommit };
  useEffect(() => setState((now) => valueChanged(now, value)), [value]);
  // Gone with its station, it is left as any field is left.
  useEffect(
    () => () => {
      const last = latest.current;
      if (last.state.reason === null && last.state.text.trim() !== last.value) last.onCommit(last.state.text.trim());
    },
    [],
  );
  const take = (): boolean => {
    const last = latest.current;
    const next = confirmed(last.state, last.value, onCommit);
    // Taken is taken: leaving the field takes it no second time.
    latest.current = { ...last, state: next, value: next.reason === null ? next.text : last.value };
    setState(next);
    return next.reason === null;
  };
  const giveUp = () => {
    latest.current = { ...latest.current, state: fieldOf(value) };
    setState(fieldOf(value));
    onLeave?.();
  };
  const refused = state.reason !== null;
  return (
    <Popover
      withRoles={false}
      opened={refused}
      position="bottom-start"
      withinPortal
      shadow="none"
      offset={2}
      zIndex={150}
    >
      <Popover.Target>
        <span className={`${styles.field} ${styles[look] ?? ''} ${refused ? styles.refused : ''}`}>
          <Input
            unstyled
            classNames={{ input: styles.input, wrapper: styles.wrapper }}
            wrapperProps={{ style: { flex: 1, minWidth: 0 } }}
            aria-label={label}
            error={refused}
            // The library would describe it by a wrapper of its own.
            withAria={false}
            aria-invalid={refused}
            aria-describedby={refused ? reasonId : undefined}
            placeholder={placeholder}
            value={state.text}
            autoFocus={autoFocus}
            maxLength={maxLength}
            autoComplete="off"
            list={suggestions && suggestions.length > 0 ? listId : undefined}
            onFocus={(event) => autoFocus && event.currentTarget.select()}
            onChange={(event) => setState(typedInto(state, event.currentTarget.value))}
            onBlur={() => {
              if (take()) onLeave?.();
            }}
            onKeyDown={(event) => {
              if (event.key === 'Enter') {
                // Who has the focus next is not pressed by this key.
                event.preventDefault();
                if (take()) event.currentTarget.blur();
                else event.currentTarget.select();
              }
              if (event.key === 'Escape') {
                event.stopPropagation();
                giveUp();
              }
            }}
          />
          {suggestions && suggestions.length > 0 && (
            <datalist id={listId}>
              {suggestions.map((suggestion) => (
                <option key={suggestion} value={suggestion} />
              ))}
            </datalist>
          )}
          {unit !== undefined && state.text !== '' && <span className={styles.unit}>{unit}</span>}
        </span>
      </Popover.Target>
      <Popover.Dropdown className={styles.reason} role="alert" id={reasonId}>
        {state.reason}
        <LinkButton onMouseDown={(event) => event.preventDefault()} onClick={giveUp}>
          Give up
        </LinkButton>
      </Popover.Dropdown>
    </Popover>
  );
}
