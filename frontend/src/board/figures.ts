/** The figures wood is read for: noted on boards, wished for by parts. */
export const FIGURES = ["straight", "cathedral", "quarter", "curly"] as const;
