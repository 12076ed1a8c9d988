/** Small things made for tests, in inches, and a component drawn to text. */
import { createSSRApp, h, type Component } from "vue";
import { renderToString } from "vue/server-renderer";
import type { Board, Part } from "../api/client";
import { plainPart } from "../api/parts";
import { plainBoard, plainStation } from "../board/make";

export const IN = 8128;

export function aBoard(values: Partial<Board> = {}): Board {
  return plainBoard({
    id: "B1",
    species: "white oak",
    length: 60 * IN,
    price: 20,
    quarter: "4/4",
    stations: [plainStation(0, 0, 6 * IN, IN), plainStation(60 * IN, 0, 5 * IN, IN)],
    ...values,
  });
}

export function aPart(values: Partial<Part> = {}): Part {
  return plainPart({
    id: "A",
    name: "Shelf",
    quantity: 2,
    species: "white oak",
    length: 20 * IN,
    width: 3 * IN,
    thickness: IN / 2,
    faces: "clear-one",
    panel: null,
    run: "",
    note: "",
    ...values,
  });
}

/** The component as HTML. */
export function drawn(component: Component, props: Record<string, unknown>): Promise<string> {
  return renderToString(createSSRApp({ render: () => h(component, props) }));
}

/** What a person would read of the HTML: its words without tags, a real fraction as 1/2. */
export function words(html: string): string {
  return html
    .replace(/<!--.*?-->/g, "")
    .replace(/<[^>]+>/g, " ")
    .replace(/\s+/g, " ")
    .replace(/(\d) \/ (\d)/g, "$1/$2")
    .replace(/ ,/g, ",")
    .trim();
}
