import { type ReactNode, useEffect, useRef } from 'react';

/**
 * A station's name, the question that it answers, and its tools. Coming to the station, the focus goes to where its
 * work starts: to the first of `startAt` that is there.
 */
export function StationHead({
  name,
  question,
  startAt,
  children,
}: {
  readonly name: string;
  readonly question: string;
  /** Selectors, the first choice first. */
  readonly startAt?: readonly string[];
  readonly children?: ReactNode;
}) {
  const begin = useRef(startAt);
  useEffect(() => {
    // Somebody who types elsewhere, in a dialog for one, is left there.
    if (document.activeElement?.matches('input, [role="combobox"]')) return;
    for (const selector of begin.current ?? []) {
      const found = document.querySelector<HTMLElement>(`#station ${selector}`);
      if (found) return found.focus({ preventScroll: true });
    }
  }, []);
  return (
    <header className="stationhead">
      <h1>{name}</h1>
      <p>{question}</p>
      <div className="tools">{children}</div>
    </header>
  );
}
