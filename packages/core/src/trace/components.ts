/** Component number of each node (Tarjan 1972, without recursion). */
export function stronglyConnected(
  nodes: number,
  edges: readonly { readonly from: number; readonly to: number }[],
): Int32Array {
  const leaving: number[][] = Array.from({ length: nodes }, () => []);
  for (const edge of edges) leaving[edge.from].push(edge.to);
  const component = new Int32Array(nodes).fill(-1);
  const index = new Int32Array(nodes).fill(-1);
  const low = new Int32Array(nodes);
  const onStack = new Uint8Array(nodes);
  const stack: number[] = [];
  let counter = 0;
  let components = 0;
  for (let start = 0; start < nodes; start += 1) {
    if (index[start] >= 0) continue;
    const work: { node: number; at: number }[] = [{ node: start, at: 0 }];
    while (work.length > 0) {
      const frame = work[work.length - 1];
      const { node } = frame;
      if (frame.at === 0) {
        index[node] = low[node] = counter += 1;
        stack.push(node);
        onStack[node] = 1;
      }
      if (frame.at < leaving[node].length) {
        const to = leaving[node][frame.at];
        frame.at += 1;
        if (index[to] < 0) work.push({ node: to, at: 0 });
        else if (onStack[to]) low[node] = Math.min(low[node], index[to]);
        continue;
      }
      work.pop();
      if (work.length > 0) low[work[work.length - 1].node] = Math.min(low[work[work.length - 1].node], low[node]);
      if (low[node] !== index[node]) continue;
      for (;;) {
        const other = stack.pop()!;
        onStack[other] = 0;
        component[other] = components;
        if (other === node) break;
      }
      components += 1;
    }
  }
  return component;
}
