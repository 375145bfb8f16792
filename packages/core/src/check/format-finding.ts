import type { Finding, Rule } from './define-rule.ts';

/** The sentence of a finding: its message with the facts put in. */
export function formatFinding(finding: Finding, rules: readonly Rule[]): string {
  const template = rules.find((rule) => rule.meta.id === finding.ruleId)?.meta.messages[finding.messageId];
  if (template === undefined) throw new Error(`no message ${finding.messageId} in ${finding.ruleId}`);
  return template.replace(/\{(\w+)\}/g, (_, name: string) => {
    if (!(name in finding.data)) throw new Error(`${finding.ruleId}: nothing for {${name}}`);
    return String(finding.data[name]);
  });
}
