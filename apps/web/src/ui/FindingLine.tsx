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
 */
export function FindingLine({
  finding,
  onSelect,
  children,
}: {
  readonly finding: WordedFinding;
  readonly onSelect: () => void;
  readonly children?: ReactNode;
}) {
  return (
    <li>
      <SeverityMark is={finding.severity} />
      <button className="plain title" onClick={onSelect}>
        {finding.title}
      </button>
      <span className="text">{finding.text}</span>
      {children}
    </li>
  );
}
