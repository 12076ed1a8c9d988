/**
 * The best bound there is: one that any search of the very same parts and boards has proved holds
 * for all of them.
 */
interface Searched {
  stale: boolean;
  lower_bound: number | null;
}

export function provenBound(shown: Searched | null, other: Searched | null): number | null {
  const same = shown && !shown.stale && other && !other.stale;
  const bounds = [shown, same ? other : null].flatMap((l) =>
    l?.lower_bound === null || l?.lower_bound === undefined ? [] : [l.lower_bound],
  );
  return bounds.length ? Math.max(...bounds) : null;
}
