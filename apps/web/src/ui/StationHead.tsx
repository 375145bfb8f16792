import type { ReactNode } from 'react';

/** A station's name, the question that it answers, and its tools. */
export function StationHead({
  name,
  question,
  children,
}: {
  readonly name: string;
  readonly question: string;
  readonly children?: ReactNode;
}) {
  return (
    <header className="stationhead">
      <h1>{name}</h1>
      <p>{question}</p>
      <div className="tools">{children}</div>
    </header>
  );
}
