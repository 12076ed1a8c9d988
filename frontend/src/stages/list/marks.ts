/** Marks made up from names, as core/cutlist/marks.py makes them: Back post is BP, the next BP2. */
export function markFor(name: string, taken: Set<string>): string {
  const words = name.match(/[A-Za-z0-9]+/g) ?? [];
  let stem =
    words.length > 1
      ? words
          .slice(0, 3)
          .map((w) => w[0])
          .join("")
      : (words[0] ?? "").slice(0, 2);
  stem = stem.toUpperCase() || "P";
  if (!taken.has(stem)) return stem;
  for (let n = 2; ; n++) if (!taken.has(stem + n)) return stem + n;
}
