/** What loads can be plugged into: each takes so many directly, and so many more as long as a common pool lasts. */
export interface Outlets {
  readonly direct: readonly number[];
  readonly extra: readonly number[];
  readonly pool: number;
}

/** Some of the loads, of which no more than so many can be placed. */
export interface FlowGroup {
  readonly loads: readonly number[];
  readonly most: number;
}

/**
 * How many of some loads can be placed at once, each in one of its outlets. Exact (augmenting paths); grows with loads
 * times edges. A load is in one group at most; `alone`: loads that take a direct place only.
 */
export function mostPlaced(
  edges: readonly (readonly number[])[],
  { direct, extra, pool }: Outlets,
  groups: readonly FlowGroup[] = [],
  alone: readonly boolean[] = [],
): number {
  const outlets = direct.length;
  // Each outlet is two places: the direct one, and behind it what the pool allows.
  const room = [...direct, ...extra];
  const here: number[][] = room.map(() => []);
  const isPlaced = new Uint8Array(edges.length);
  const groupOf = new Int32Array(edges.length).fill(-1);
  groups.forEach(({ loads }, g) => {
    for (const load of loads) groupOf[load] = g;
  });
  const inGroup = groups.map(() => 0);
  let inPool = 0;
  let visited = new Uint8Array(room.length);
  let isPoolVisited = false;
  let isGroupVisited = groups.map(() => false);

  /** Makes room for one more in the pool: a load that uses it moves elsewhere. */
  const freePool = (): boolean => {
    if (isPoolVisited) return false;
    isPoolVisited = true;
    for (let at = outlets; at < room.length; at += 1)
      for (const moved of here[at]) {
        if (!leave(moved)) continue;
        here[at].splice(here[at].indexOf(moved), 1);
        inPool -= 1;
        return true;
      }
    return false;
  };
  /** A placed load finds another place, or gives its own to the rest of its group. */
  const leave = (load: number): boolean => {
    if (place(load)) return true;
    const group = groupOf[load];
    if (group < 0 || isGroupVisited[group]) return false;
    isGroupVisited[group] = true;
    for (const other of groups[group].loads) {
      if (isPlaced[other] || !place(other)) continue;
      isPlaced[other] = 1;
      isPlaced[load] = 0;
      return true;
    }
    return false;
  };
  const placeAt = (load: number, at: number): boolean => {
    if (visited[at]) return false;
    visited[at] = 1;
    const isPool = at >= outlets;
    if (here[at].length < room[at] && (!isPool || inPool < pool || freePool())) {
      here[at].push(load);
      if (isPool) inPool += 1;
      return true;
    }
    for (let i = 0; i < here[at].length; i += 1) {
      if (!leave(here[at][i])) continue;
      here[at][i] = load;
      return true;
    }
    return false;
  };
  const place = (load: number): boolean => {
    for (const o of edges[load]) {
      if (placeAt(load, o)) return true;
      if (alone[load] !== true && placeAt(load, outlets + o)) return true;
    }
    return false;
  };

  let placed = 0;
  for (let load = 0; load < edges.length; load += 1) {
    const group = groupOf[load];
    if (isPlaced[load] || edges[load].length === 0 || (group >= 0 && inGroup[group] >= groups[group].most)) continue;
    visited = new Uint8Array(room.length);
    isPoolVisited = false;
    isGroupVisited = groups.map(() => false);
    if (!place(load)) continue;
    isPlaced[load] = 1;
    placed += 1;
    if (group >= 0) inGroup[group] += 1;
  }
  return placed;
}
