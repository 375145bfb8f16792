import { Button, Group, Modal } from '@mantine/core';
import type { ReactNode } from 'react';

/** Asks before something that cannot be undone. */
export function Confirm({
  title,
  does,
  open,
  onConfirm,
  onClose,
  children,
}: {
  readonly title: string;
  readonly does: string;
  readonly open: boolean;
  readonly onConfirm: () => void;
  readonly onClose: () => void;
  readonly children: ReactNode;
}) {
  return (
    <Modal opened={open} onClose={onClose} title={title} centered>
      <div>{children}</div>
      <Group justify="flex-end" mt="md">
        <Button variant="default" onClick={onClose} data-autofocus>
          Leave as it is
        </Button>
        <Button
          color="red"
          onClick={() => {
            onClose();
            onConfirm();
          }}
        >
          {does}
        </Button>
      </Group>
    </Modal>
  );
}
