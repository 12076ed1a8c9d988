/** The instruments at the bench: where a reading would go, and how it is taken. */
import { ref } from "vue";
import { api, type Board } from "./client";

/** The field the cursor is in, if a reading can be put there. */
export interface Target {
  kind: "thickness" | "moisture";
  says: string;
  x: number;
  y: number;
  put: (value: number) => void;
}
export const target = ref<Target>();

export interface Taken {
  value?: number;
  question: string;
  trouble: string;
}

/** A reading at the target's place; nothing is put anywhere yet. */
export async function takeReading(project: number, board: Board, at: Target, day: number): Promise<Taken> {
  const ask = { params: { path: { project } }, body: { board, x: at.x, y: at.y, day } };
  const { data } =
    at.kind === "thickness"
      ? await api.POST("/api/projects/{project}/readings/thickness", ask)
      : await api.POST("/api/projects/{project}/readings/moisture", ask);
  return {
    value: (at.kind === "thickness" ? data!.thickness : data!.percent) ?? undefined,
    question: data!.question,
    trouble: data!.trouble,
  };
}

export const today = (): number => Math.floor(Date.now() / 86_400_000);
