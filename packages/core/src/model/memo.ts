/**
 * What has been worked out about a thing, by question. It is kept with the thing itself and goes when the thing goes: a
 * weak map beside it would hold the same, but what stands in a weak map that has grown old outlives every collection of
 * young memory, with all that it leads to.
 */
export class Memo {
  readonly #answers = new Map<object, unknown>();

  /** The answer to a question, found at the first time. A question is known by the function that finds its answer. */
  of<A, T extends object>(find: (about: A) => T, about: A): T {
    let answer = this.#answers.get(find) as T | undefined;
    if (answer === undefined) this.#answers.set(find, (answer = find(about)));
    return answer;
  }
}

/** A question about a thing that is answered once; `keeper` tells in whose notes. */
export const memoised =
  <A, T extends object>(keeper: (about: A) => Memo, find: (about: A) => T): ((about: A) => T) =>
  (about) =>
    keeper(about).of(find, about);
