import { Button } from '@mantine/core';
import { useSaved, useShow } from '../api/rig.tsx';

/** Edits that could not be saved: they stay here until somebody decides. */
export function SetAsideEdits() {
  const { store } = useShow();
  const { aside } = useSaved();
  if (aside.length === 0) return null;
  return (
    <section className="refusal aside" role="alert" aria-label="Edits that were not saved">
      <b>{aside.length === 1 ? 'An edit was not saved' : `${aside.length} edits were not saved`}</b>
      <ul>
        {aside.map(({ key, words, value, why }) => (
          <li key={key}>
            <span>
              <b>{words}</b>
              {value !== null && ` (${value})`}: {why}
            </span>
            <span className="tools">
              <Button
                size="compact-xs"
                variant="default"
                onClick={() => store.applyAside(key)}
                aria-label={`Apply anyway: ${words}`}
              >
                Apply anyway
              </Button>
              <Button
                size="compact-xs"
                variant="default"
                onClick={() => store.discardAside(key)}
                aria-label={`Discard: ${words}`}
              >
                Discard
              </Button>
            </span>
          </li>
        ))}
      </ul>
    </section>
  );
}
