import type { Severity } from '@yunta/core';
import type { ToldFinding } from '../workers/judge-types.ts';

/** What one rule found: one thing to understand, in one or more places. */
export interface FindingGroup {
  readonly rule: string;
  readonly severity: Severity;
  readonly title: string;
  readonly findings: readonly ToldFinding[];
}

/** Findings by rule and severity, in the order in which they come. */
export function groupsOf(findings: readonly ToldFinding[]): readonly FindingGroup[] {
  const groups = new Map<string, FindingGroup & { readonly findings: ToldFinding[] }>();
  for (const finding of findings) {
    const key = `${finding.severity} ${finding.ruleId} ${finding.title}`;
    const group = groups.get(key);
    if (group) group.findings.push(finding);
    else
      groups.set(key, {
        rule: finding.ruleId,
        severity: finding.severity,
        title: finding.title,
        findings: [finding],
      });
  }
  return [...groups.values()];
}
