import { UnstyledButton } from '@mantine/core';
import type { Severity } from '@yunta/core';
import { useFindings } from '../api/rig.tsx';
import { SeverityMark } from '../ui/SeverityMark.tsx';

const severities: readonly (readonly [Severity, string])[] = [
  ['stops-the-show', 'stop the show'],
  ['fix-before-load-in', 'to fix'],
  ['worth-knowing', 'to know'],
];

/** How much is found, by severity; what is nothing is not marked. It opens the findings. */
export function Counts({ open, onToggle }: { readonly open: boolean; readonly onToggle: () => void }) {
  const { judged } = useFindings();
  const counts = severities.map(
    ([severity, words]) =>
      [severity, words, judged?.findings.filter((finding) => finding.severity === severity).length ?? 0] as const,
  );
  const some = counts.filter(([, , count]) => count > 0);
  return (
    <UnstyledButton className="counts" aria-expanded={open} onClick={onToggle}>
      <span className="visually-hidden">Findings: </span>
      <span aria-live="polite">
        {!judged && <span className="soft">judging …</span>}
        {judged && some.length === 0 && <span className="soft">nothing found</span>}
        {some.map(([severity, words, count]) => (
          <span key={severity} className="count">
            <SeverityMark is={severity} /> {count} <span className="word">{words}</span>
          </span>
        ))}
      </span>
    </UnstyledButton>
  );
}
