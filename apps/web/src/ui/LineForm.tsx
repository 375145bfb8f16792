import { Button } from '@mantine/core';
import type { ReactNode } from 'react';

/** One line in which something is typed and added by Enter or its button. */
export function LineForm({
  does,
  onAdd,
  last = false,
  children,
}: {
  readonly does: string;
  readonly onAdd: () => void;
  readonly last?: boolean;
  readonly children: ReactNode;
}) {
  return (
    <form
      className="addline"
      style={last ? { borderBottom: 0 } : undefined}
      onSubmit={(event) => {
        event.preventDefault();
        onAdd();
      }}
    >
      {children}
      <Button type="submit" variant={last ? 'default' : 'filled'}>
        {does}
      </Button>
    </form>
  );
}
