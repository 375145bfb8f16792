import { useCallback, useState } from 'react';

/** The drawer of findings: shut, open over the station until one looks elsewhere, or pinned beside it. */
export type FindingsPanel = 'shut' | 'open' | 'pinned';

const key = 'findings';
const remembered = (): FindingsPanel => {
  try {
    return localStorage.getItem(key) === 'pinned' ? 'pinned' : 'shut';
  } catch {
    return 'shut';
  }
};

/** Remembers whether it was pinned; a browser that keeps nothing begins with it shut. */
export function useFindingsPanel(): readonly [FindingsPanel, (panel: FindingsPanel) => void] {
  const [panel, setPanel] = useState(remembered);
  const change = useCallback((next: FindingsPanel) => {
    setPanel(next);
    try {
      localStorage.setItem(key, next);
    } catch {
      // Then it is shut the next time.
    }
  }, []);
  return [panel, change];
}
