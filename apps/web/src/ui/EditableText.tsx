import { useEffect, useState } from 'react';

interface EditableTextProps {
  readonly value: string;
  readonly label: string;
  readonly onCommit: (value: string) => void;
  readonly className?: string;
  readonly placeholder?: string;
  readonly autoFocus?: boolean;
  /** After it was taken or given up. */
  readonly onLeave?: () => void;
}

/** A text edited in place: Enter or leaving takes it, Escape gives it up. */
export function EditableText({
  value,
  label,
  onCommit,
  className = 'cellinput',
  placeholder,
  autoFocus = false,
  onLeave,
}: EditableTextProps) {
  const [typed, setTyped] = useState(value);
  useEffect(() => setTyped(value), [value]);
  const take = () => {
    const next = typed.trim();
    if (next === value) setTyped(value);
    else onCommit(next);
    onLeave?.();
  };
  return (
    <input
      className={className}
      aria-label={label}
      placeholder={placeholder}
      value={typed}
      autoFocus={autoFocus}
      onFocus={(event) => autoFocus && event.target.select()}
      onChange={(event) => setTyped(event.target.value)}
      onBlur={take}
      onKeyDown={(event) => {
        if (event.key === 'Enter') {
          // Who has the focus next is not pressed by this key.
          event.preventDefault();
          event.currentTarget.blur();
        }
        if (event.key === 'Escape') {
          setTyped(value);
          onLeave?.();
          event.stopPropagation();
        }
      }}
    />
  );
}
