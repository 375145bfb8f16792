import type { Show } from '../model/documents.ts';
import { applySteps } from '../change/steps.ts';
import { check, contextOf } from '../check/engine.ts';
import type { Finding, Rule } from '../check/define-rule.ts';
import { formatFinding } from '../check/format-finding.ts';

export interface RuleCases {
  /** Ordinary rigs that the rule must not scold. */
  readonly clean: Readonly<Record<string, Show>>;
  /** `fixable`: a fix must be offered and help, or none must be; else nothing is asked of it. */
  readonly faulty: Readonly<
    Record<string, { readonly show: Show; readonly messages: readonly string[]; readonly fixable?: boolean }>
  >;
}

/**
 * What is wrong with a rule by its cases; nothing where it is a good one: quiet on what is clean, firing with the
 * messages named on what is faulty, every sentence filled in, its fix making the finding go, the show left as it was.
 */
export function ruleFaults(rule: Rule, cases: RuleCases): readonly string[] {
  const faults: string[] = [];
  const seen = new Set<string>();
  const shows = [
    ...Object.entries(cases.clean),
    ...Object.entries(cases.faulty).map(([name, one]) => [name, one.show] as const),
  ];
  for (const [name, show] of shows) {
    const text = JSON.stringify(show);
    if (seen.has(text)) faults.push(`${name}: the same show twice`);
    seen.add(text);
  }
  for (const [name, show] of Object.entries(cases.clean))
    for (const finding of run(rule, show))
      faults.push(`${name}: should be quiet, said ${formatFinding(finding, [rule])}`);
  for (const [name, { show, messages, fixable }] of Object.entries(cases.faulty)) {
    const found = run(rule, show);
    const said = found.map((finding) => finding.messageId).sort();
    if (said.join() !== [...messages].sort().join())
      faults.push(`${name}: said ${said.join() || 'nothing'}, expected ${messages.join()}`);
    for (const finding of found)
      if (/[{}]/.test(formatFinding(finding, [rule])))
        faults.push(`${name}: an unfilled place in "${formatFinding(finding, [rule])}"`);
    if (fixable) faults.push(...fixFaults(rule, name, show, found));
    else if (fixable === false && found.some((finding) => finding.fix)) faults.push(`${name}: a fix is offered`);
  }
  return faults;
}

function run(rule: Rule, show: Show): readonly Finding[] {
  const frozen = deepFrozen(JSON.parse(JSON.stringify(show)) as Show);
  const { findings, broken } = check(contextOf(frozen), [rule]);
  if (broken.length > 0) throw new Error(broken[0].reason);
  return findings;
}

function fixFaults(rule: Rule, name: string, show: Show, found: readonly Finding[]): string[] {
  const finding = found.find((finding) => finding.fix);
  if (!finding?.fix) return [`${name}: no fix offered`];
  const fixed = applySteps(show, finding.fix.steps);
  if (!fixed.ok) return [`${name}: the fix is refused: ${fixed.problems[0].code}`];
  const left = run(rule, fixed.value).filter(
    (item) => JSON.stringify(item.at) === JSON.stringify(finding.at) && item.messageId === finding.messageId,
  );
  return left.length > 0 ? [`${name}: still found after its fix`] : [];
}

function deepFrozen<T>(data: T): T {
  if (data !== null && typeof data === 'object' && !Object.isFrozen(data)) {
    Object.freeze(data);
    for (const value of Object.values(data)) deepFrozen(value);
  }
  return data;
}
