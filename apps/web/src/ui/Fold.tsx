import { UnstyledButton } from '@mantine/core';
import { IconChevronRight } from '@tabler/icons-react';
import { type ReactNode, useId, useState } from 'react';
import styles from './ui.module.css';

/** What is seldom needed, behind its heading. */
export function Fold({
  title,
  open: first = false,
  children,
}: {
  readonly title: ReactNode;
  readonly open?: boolean;
  readonly children: ReactNode;
}) {
  const [open, setOpen] = useState(first);
  const id = useId();
  return (
    <div className={styles.fold}>
      <UnstyledButton aria-expanded={open} aria-controls={id} onClick={() => setOpen(!open)}>
        <IconChevronRight size={14} aria-hidden="true" />
        {title}
      </UnstyledButton>
      <div id={id} hidden={!open}>
        {open && children}
      </div>
    </div>
  );
}
