/** Park and Miller's generator: enough to shake pieces loose. */
export function randomFrom(seed: number): () => number {
  let state = (Math.abs(Math.floor(seed)) % 2_147_483_646) + 1;
  return () => {
    state = (state * 48_271) % 2_147_483_647;
    return state / 2_147_483_647;
  };
}
