import { UnstyledButton, type UnstyledButtonProps } from '@mantine/core';
import { type ButtonHTMLAttributes, forwardRef } from 'react';
import styles from './ui.module.css';

interface LinkButtonProps
  extends UnstyledButtonProps, Omit<ButtonHTMLAttributes<HTMLButtonElement>, keyof UnstyledButtonProps> {}

/** A button that reads as a link: what is done beside something, not instead of it. */
export const LinkButton = forwardRef<HTMLButtonElement, LinkButtonProps>(function LinkButton(
  { className, ...props },
  ref,
) {
  return <UnstyledButton ref={ref} className={`${styles.link} ${className ?? ''}`} {...props} />;
});
