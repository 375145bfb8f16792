import type { ReactNode } from 'react';
import { LinkButton } from './LinkButton.tsx';
import styles from './ui.module.css';

/** A sentence across the station: something refused (said at once), or something worth saying. */
export function Notice({
  tone = 'notice',
  onDismiss,
  children,
}: {
  readonly tone?: 'notice' | 'refusal';
  readonly onDismiss?: () => void;
  readonly children: ReactNode;
}) {
  return (
    <div className={`${styles.notice} ${tone}`} data-tone={tone} role={tone === 'refusal' ? 'alert' : 'status'}>
      <span>{children}</span>
      {onDismiss && <LinkButton onClick={onDismiss}>Dismiss</LinkButton>}
    </div>
  );
}
