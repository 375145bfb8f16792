import type { Severity } from '@yunta/core';
import { type Station, stations } from '../../ui/stations.ts';

export interface AtStation {
  readonly station: Station;
  readonly fixes: number;
  readonly knows: number;
  /** What is found there, each title once. */
  readonly titles: readonly string[];
}

/** Findings by the station that mends them; stations with none are left out. */
export const byStation = (
  findings: readonly { readonly ruleId: string; readonly severity: Severity; readonly title: string }[],
): readonly AtStation[] =>
  stations.flatMap((station) => {
    const own = findings.filter((finding) => station.holds(finding.ruleId));
    if (own.length === 0) return [];
    const count = (severity: Severity) => own.filter((finding) => finding.severity === severity).length;
    return [
      {
        station,
        fixes: count('fix-before-load-in'),
        knows: count('worth-knowing'),
        titles: [...new Set(own.map((finding) => finding.title))],
      },
    ];
  });
