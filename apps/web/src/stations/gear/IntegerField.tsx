import { NumberInput } from '@mantine/core';
import { useEffect, useState } from 'react';

/** Taken when left or on Enter, so that half a number is no edit. */
export function IntegerField({
  label,
  value,
  min,
  max,
  onCommit,
  hidden = false,
}: {
  readonly label: string;
  readonly value: number;
  readonly min: number;
  readonly max: number;
  readonly onCommit: (value: number) => void;
  readonly hidden?: boolean;
}) {
  const [typed, setTyped] = useState<string | number>(value);
  useEffect(() => setTyped(value), [value]);
  const take = () => {
    if (typeof typed === 'number' && typed !== value) onCommit(typed);
    else if (typed === '') setTyped(value);
  };
  return (
    <NumberInput
      {...(hidden ? { 'aria-label': label } : { label })}
      value={typed}
      min={min}
      max={max}
      clampBehavior="strict"
      allowDecimal={false}
      onChange={setTyped}
      onBlur={take}
      onKeyDown={(event) => event.key === 'Enter' && take()}
      hideControls
    />
  );
}
