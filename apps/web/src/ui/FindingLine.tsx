import { UnstyledButton } from '@mantine/core';
import type { Severity } from '@yunta/core';
import type { ReactNode } from 'react';
import { SeverityMark } from './SeverityMark.tsx';

interface WordedFinding {
  readonly severity: Severity;
  readonly title: string;
  readonly text: string;
}

/**
 * A finding as one reads it: its mark, its title (which selects what it is about), its sentence, and what can be done.
 * Under a title that it shares with others, the sentence alone.
 */
export function FindingLine({
  finding,
  textOnly = false,
  onSelect,
  children,
}: {
  readonly finding: WordedFinding;
  readonly textOnly?: boolean;
  readonly onSelect: () => void;
  readonly children?: ReactNode;
}) {
  return (
    <li>
      {!textOnly && <SeverityMark is={finding.severity} />}
      <UnstyledButton className={textOnly ? 'text' : 'title'} onClick={onSelect}>
        {textOnly ? finding.text : finding.title}
      </UnstyledButton>
      {!textOnly && <span className="text">{finding.text}</span>}
      {children}
    </li>
  );
}
