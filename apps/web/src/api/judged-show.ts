import type { Show, Step } from '@yunta/core';
import type { Judged, JudgeRequest, ToldFinding } from '../workers/judge-types.ts';

export interface JudgedState {
  readonly judged: Judged | null;
  /** Findings that went away with a recent edit. */
  readonly gone: readonly ToldFinding[];
}

/**
 * Who judges: the worker, or a test's stand-in. Null where newer news came meanwhile; 'out of step' where the steps do
 * not apply to what it holds.
 */
export type Judging = (request: JudgeRequest) => Promise<Judged | null | 'out of step'>;

/** What is followed: the store of the open rig. */
export interface ShowSource {
  readonly get: () => { readonly show: Show };
  readonly subscribe: (listener: () => void) => () => void;
  /** Steps from an earlier show to this one; null where they are no longer known. */
  readonly stepsSince: (show: Show) => readonly Step[] | null;
}

export const keyOfFinding = (finding: ToldFinding): string =>
  `${finding.ruleId}|${finding.messageId}|${JSON.stringify(finding.at)}`;

/**
 * What is found in the newest show. Follows the store itself and not the page: an edit is on its way to the worker
 * before anything is drawn. Steps go over where they can, the whole show otherwise.
 */
export class JudgedShow {
  private state: JudgedState = { judged: null, gone: [] };
  private sent: Show | null = null;
  private readonly listeners = new Set<() => void>();

  constructor(
    private readonly store: ShowSource,
    private readonly judging: Judging,
  ) {}

  subscribe = (listener: () => void): (() => void) => {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  };

  get = (): JudgedState => this.state;

  /** Judges what is there and after every edit, until stopped. */
  start(): () => void {
    this.sent = null;
    this.follow();
    return this.store.subscribe(() => this.follow());
  }

  private follow(): void {
    const { show } = this.store.get();
    if (show === this.sent) return;
    const steps: readonly Step[] | null = this.sent ? this.store.stepsSince(this.sent) : null;
    this.sent = show;
    void this.send(steps ? { steps } : { show }, show);
  }

  private async send(request: JudgeRequest, show: Show): Promise<void> {
    const answer = await this.judging(request);
    if (answer === 'out of step') {
      if (this.sent === show) await this.send({ show }, show);
    } else if (answer) this.take(answer);
  }

  private take(answer: Judged): void {
    const before = new Map((this.state.judged?.findings ?? []).map((finding) => [keyOfFinding(finding), finding]));
    const findings = answer.findings.map((finding) => reuseIfEqual(before.get(keyOfFinding(finding)), finding));
    const now = new Set(findings.map(keyOfFinding));
    // What follows from another finding now, whatever it says there, is not solved.
    const followers = new Set(findings.flatMap(({ following }) => following).map(placeOf));
    const isGone = (finding: ToldFinding) => !now.has(keyOfFinding(finding)) && !followers.has(placeOf(finding));
    const gone = [...before.values(), ...this.state.gone].filter(isGone).slice(0, 4);
    this.state = {
      judged: { ...answer, findings },
      gone: gone.length === 0 && this.state.gone.length === 0 ? this.state.gone : gone,
    };
    for (const listener of this.listeners) listener();
  }
}

/** Its rule and what it is first about: that of the rest which it names may change with what it says. */
const placeOf = ({ ruleId, at }: ToldFinding): string =>
  JSON.stringify([ruleId, at.slot ?? at.sound ?? at.part ?? at.device]);

/** The very same finding where it says the same, so that it need not be drawn again. */
const reuseIfEqual = (old: ToldFinding | undefined, now: ToldFinding): ToldFinding =>
  old && JSON.stringify(old) === JSON.stringify(now) ? old : now;
