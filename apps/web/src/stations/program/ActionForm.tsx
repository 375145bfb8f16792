import { TextInput } from '@mantine/core';
import { type Action, readActionLine, type WiredDevice } from '@yunta/core';
import { useState } from 'react';
import { LineForm } from '../../ui/LineForm.tsx';

const examples = {
  slot: 'pc 12 ch 3 · cc 102 127 ch 2 · loop 4 on · contact 1 closed · wait 20',
  momentary: 'loop 4 on · cc 102 127 ch 2 · contact 1 closed · remember loop 4 · restore loop 4',
} as const;

const reasons = {
  'not-understood': 'Write:',
  'out-of-range': 'Channels are 1 to 16, programs and values 0 to 127, a wait 60,000 ms at most.',
  'no-loop': 'The switcher has no loop of this number.',
  'no-contact': 'The switcher has no contact of this number.',
} as const;

/** One action, typed; numbers as sent. What is refused stays in the field. */
export function ActionForm({
  label,
  controller,
  of,
  onAdd,
}: {
  readonly label: string;
  readonly controller: WiredDevice;
  readonly of: 'slot' | 'momentary';
  readonly onAdd: (action: Action) => boolean;
}) {
  const [line, setLine] = useState('');
  const [reason, setReason] = useState<string | null>(null);
  const add = () => {
    const read = readActionLine(controller, line, of);
    if (!read.ok)
      return setReason(
        read.reason === 'not-understood'
          ? `${reasons[read.reason]} ${examples[of]} (numbers as sent).`
          : reasons[read.reason],
      );
    setReason(null);
    if (onAdd(read.action)) setLine('');
  };
  return (
    <LineForm does="Add action" onAdd={add} last>
      <TextInput
        className="grow"
        aria-label={label}
        placeholder={examples[of]}
        value={line}
        onChange={(event) => setLine(event.target.value)}
        error={reason ?? undefined}
        spellCheck={false}
        autoComplete="off"
      />
    </LineForm>
  );
}
