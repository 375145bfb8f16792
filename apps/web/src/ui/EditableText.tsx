import { useEffect, useState } from 'react';

/** A text edited in place: Enter or leaving takes it, Escape gives it up. */
export function EditableText({ value, label, onTake, className = 'cellinput', placeholder }: { readonly value: string; readonly label: string; readonly onTake: (value: string) => void; readonly className?: string; readonly placeholder?: string }) {
  const [typed, setTyped] = useState(value);
  useEffect(() => setTyped(value), [value]);
  const take = () => {
    const next = typed.trim();
    if (next === value) setTyped(value);
    else onTake(next);
  };
  return (
    <input
      className={className}
      aria-label={label}
      placeholder={placeholder}
      value={typed}
      onChange={(event) => setTyped(event.target.value)}
      onBlur={take}
      onKeyDown={(event) => {
        if (event.key === 'Enter') event.currentTarget.blur();
        if (event.key === 'Escape') {
          setTyped(value);
          event.stopPropagation();
        }
      }}
    />
  );
}
