/** Finding anything by its name: places, parts, boards, things to do, help. Pure. */
export interface Findable {
  /** What it is: it stands beside the name. */
  kind: "go to" | "part" | "board" | "help" | "word" | "do";
  name: string;
  /** More words it is found by. */
  more?: string;
  take: () => void;
}

const words = (text: string): string[] => text.toLowerCase().split(/\s+/).filter(Boolean);

/**
 * Those in which every word asked for begins a word, the ones whose name begins with it first;
 * otherwise in the order given.
 */
export function found(all: readonly Findable[], asked: string, most = 12): Findable[] {
  const wanted = words(asked);
  const ranked = all.flatMap((one) => {
    const there = words(`${one.name} ${one.more ?? ""} ${one.kind}`);
    if (!wanted.every((w) => there.some((t) => t.startsWith(w)))) return [];
    return [{ one, first: one.name.toLowerCase().startsWith(wanted.join(" ")) ? 0 : 1 }];
  });
  return ranked
    .sort((a, b) => a.first - b.first)
    .slice(0, most)
    .map((r) => r.one);
}
