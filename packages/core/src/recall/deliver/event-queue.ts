/** What is still to happen, earliest first; of several at one time, the one put in first (a binary heap). */
export class EventQueue<T extends { readonly time: number; readonly seq: number }> {
  private readonly heap: T[] = [];

  get size(): number {
    return this.heap.length;
  }

  first(): T {
    return this.heap[0];
  }

  add(item: T): void {
    const { heap } = this;
    let at = heap.push(item) - 1;
    while (at > 0) {
      const above = (at - 1) >> 1;
      if (!isBefore(item, heap[above])) break;
      heap[at] = heap[above];
      at = above;
    }
    heap[at] = item;
  }

  take(): T {
    const { heap } = this;
    const first = heap[0];
    const last = heap.pop()!;
    if (heap.length > 0) this.sink(last);
    return first;
  }

  inOrder(): readonly T[] {
    return [...this.heap].sort((a, b) => (isBefore(a, b) ? -1 : 1));
  }

  private sink(item: T): void {
    const { heap } = this;
    let at = 0;
    for (;;) {
      let below = 2 * at + 1;
      if (below >= heap.length) break;
      if (below + 1 < heap.length && isBefore(heap[below + 1], heap[below])) below += 1;
      if (!isBefore(heap[below], item)) break;
      heap[at] = heap[below];
      at = below;
    }
    heap[at] = item;
  }
}

const isBefore = (
  a: { readonly time: number; readonly seq: number },
  b: { readonly time: number; readonly seq: number },
): boolean => a.time < b.time || (a.time === b.time && a.seq < b.seq);
