/** The stages of a project, in the order they are gone through. */
export const STAGES = [
  { name: "draw", word: "Draw" },
  { name: "list", word: "List" },
  { name: "buy", word: "Buy" },
  { name: "boards", word: "Boards" },
  { name: "layout", word: "Lay out" },
  { name: "mill", word: "Mill" },
  { name: "books", word: "Books" },
] as const;

export type StageName = (typeof STAGES)[number]["name"];
