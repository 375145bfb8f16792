import { type RefObject, useEffect, useRef } from 'react';

/** For what steps aside while a field stands in its place: has the focus again when the field has gone with it. */
export function useFocusBack<T extends HTMLElement>(isAside: boolean): RefObject<T | null> {
  const own = useRef<T>(null);
  const wasAside = useRef(false);
  useEffect(() => {
    if (wasAside.current && !isAside && document.activeElement === document.body) own.current?.focus();
    wasAside.current = isAside;
  }, [isAside]);
  return own;
}
