/** Puts the focus where its station stands a moment later: on what has this name. Given up after two seconds. */
export function focusNamed(name: string): void {
  const until = performance.now() + 2000;
  const look = () => {
    const found = document.querySelector<HTMLElement>(`[aria-label="${CSS.escape(name)}"]`);
    if (found) found.focus();
    else if (performance.now() < until) requestAnimationFrame(look);
  };
  requestAnimationFrame(look);
}
