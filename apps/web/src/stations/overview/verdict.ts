import { type Finding, type Show, type Unjudged, unjudgedWords } from '@yunta/core';

/** The answer to whether one can go on stage, in one line. */
export function verdictOf(
  show: Show,
  findings: readonly Pick<Finding, 'severity' | 'ruleId'>[],
  missing: readonly Unjudged[],
): { readonly words: string; readonly mark: 'stops-the-show' | 'fix-before-load-in' | 'ok' | 'none' } {
  // What is missing is said as the next thing to do, and not counted with what is wrong.
  const count = (severity: Finding['severity']) =>
    findings.filter((finding) => finding.severity === severity && finding.ruleId !== 'show/not-judged').length;
  const stops = count('stops-the-show');
  const fixes = count('fix-before-load-in');
  if (Object.keys(show.rig.devices).length === 0)
    return { words: 'Nothing to judge yet: enter your gear.', mark: 'none' };
  if (Object.keys(show.rig.sounds).length === 0)
    return { words: 'Nothing to judge yet: say what sounds the rig should make.', mark: 'none' };
  if (stops > 0)
    return {
      words: `Not tonight: ${stops} ${stops === 1 ? 'thing stops' : 'things stop'} the show${fixes > 0 ? `, ${fixes} more to fix before load-in` : ''}.`,
      mark: 'stops-the-show',
    };
  const [next] = missing;
  const left = next && `not all is judged: ${unjudgedWords(show, next)}${more(missing.length - 1)}`;
  if (fixes > 0)
    return {
      words: `Not yet: ${fixes} to fix before load-in${left ? `, and ${left}` : ''}.`,
      mark: 'fix-before-load-in',
    };
  if (left) return { words: `Nothing found stands in the way, but ${left}.`, mark: 'none' };
  return { words: 'Yes. Nothing found stands in the way.', mark: 'ok' };
}

const more = (count: number): string => (count === 0 ? '' : ` (and ${count} more)`);
