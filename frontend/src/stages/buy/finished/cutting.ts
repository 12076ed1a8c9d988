/** How lengths are cut, in a line: "2 × (L + S), 1 × (4 S)". */
export function cutting(cuts: string[][]): string {
  return [...counted(cuts.map((cut) => [...counted(cut)].map(times).join(" + ")))]
    .map(([parts, n]) => `${n} × (${parts})`)
    .join(", ");
}
const times = ([part, n]: [string, number]): string => (n > 1 ? `${n} ${part}` : part);

function counted(things: string[]): Map<string, number> {
  const found = new Map<string, number>();
  for (const thing of things) found.set(thing, (found.get(thing) ?? 0) + 1);
  return found;
}
