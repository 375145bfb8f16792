import { expect, test } from '@jest/globals';
import { emptyShow, type Show, type Step } from '@yunta/core';
import type { Judged, JudgeRequest, ToldFinding } from '../workers/judge-types.ts';
import { type Judging, JudgedShow } from './judged-show.ts';

const finding = (messageId: string, text: string): ToldFinding => ({
  ruleId: 'made/up',
  messageId,
  severity: 'worth-knowing',
  at: { sound: 'a' },
  data: {},
  text,
  title: messageId,
  why: '',
  remedy: '',
  source: '',
  following: [],
});
const judgedOf = (...findings: ToldFinding[]): Judged => ({
  serial: 0,
  findings,
  waived: [],
  broken: [],
  milliseconds: 0,
});
const settled = () => new Promise((resolve) => setTimeout(resolve, 0));

/** A store that a test edits by hand, and a judge whose answers it gives. */
function standIn(answers: readonly (Judged | null | 'out of step')[]) {
  let show: Show = emptyShow('rig', 'Rig');
  let steps: readonly Step[] | null = [];
  const listeners = new Set<() => void>();
  const requests: JudgeRequest[] = [];
  const judging: Judging = (judgeRequest) => {
    requests.push(judgeRequest);
    return Promise.resolve(answers[requests.length - 1] ?? null);
  };
  const store = {
    get: () => ({ show }),
    subscribe: (item: () => void) => (listeners.add(item), () => listeners.delete(item)),
    stepsSince: () => steps,
  };
  const edit = (made: readonly Step[] | null) => {
    show = { ...show };
    steps = made;
    for (const listener of listeners) listener();
  };
  return {
    judged: new JudgedShow(store, judging),
    edit,
    requests,
    tell: () => listeners.forEach((listener) => listener()),
  };
}
const step: Step = { doc: 'rig', op: 'set', at: ['name'], value: 'New', old: 'Rig' };

test('the whole show goes over first, then the steps of each edit, at once', () => {
  const { judged, edit, requests } = standIn([]);
  judged.start();
  edit([step]);
  expect(requests).toEqual([{ show: expect.objectContaining({ rig: expect.anything() }) }, { steps: [step] }]);
});
test('where nothing of the show has changed, nothing is sent', () => {
  const { judged, tell, requests } = standIn([]);
  judged.start();
  tell();
  expect(requests).toHaveLength(1);
});
test('steps that are no longer known, or do not apply there, are made good by the whole show', async () => {
  const { judged, edit, requests } = standIn([null, 'out of step', null, null]);
  judged.start();
  edit([step]);
  await settled();
  expect(requests.map((request) => Object.keys(request)[0])).toEqual(['show', 'steps', 'show']);
  edit(null);
  expect(Object.keys(requests[3])).toEqual(['show']);
});
test('an answer overtaken by a newer edit changes nothing', async () => {
  const { judged, edit } = standIn([judgedOf(finding('one', 'said')), null]);
  judged.start();
  await settled();
  const before = judged.get();
  edit([step]);
  await settled();
  expect(judged.get()).toBe(before);
});
test('a finding that says the same is the same object; one that is gone is told as gone until it comes back', async () => {
  const { judged, edit } = standIn([
    judgedOf(finding('one', 'said'), finding('two', 'said')),
    judgedOf(finding('one', 'said'), finding('two', 'said otherwise')),
    judgedOf(finding('two', 'said otherwise')),
    judgedOf(finding('one', 'said')),
  ]);
  judged.start();
  await settled();
  const [one, two] = judged.get().judged!.findings;
  edit([step]);
  await settled();
  expect(judged.get().judged!.findings[0]).toBe(one);
  expect(judged.get().judged!.findings[1]).not.toBe(two);
  expect(judged.get().gone).toEqual([]);
  edit([step]);
  await settled();
  expect(judged.get().gone).toEqual([one]);
  edit([step]);
  await settled();
  expect(judged.get().gone.map((gone) => gone.messageId)).toEqual(['two']);
});
test('once stopped it follows no more', () => {
  const { judged, edit, requests } = standIn([]);
  judged.start()();
  edit([step]);
  expect(requests).toHaveLength(1);
});
test('what follows from another finding now is not struck out as solved', async () => {
  const silent = { ...finding('silent', 'no sound'), at: { sound: 'a', device: 'amp' } };
  const open = { ...finding('open', 'no load'), at: { device: 'amp' } };
  const { judged, edit } = standIn([
    judgedOf(silent),
    judgedOf({ ...open, following: [finding('silent otherwise', 'no sound at all')] }),
    judgedOf(silent),
  ]);
  judged.start();
  await settled();
  edit([step]);
  await settled();
  expect(judged.get().gone).toEqual([]);
  edit([step]);
  await settled();
  expect(judged.get().gone.map(({ messageId }) => messageId)).toEqual(['open']);
});
