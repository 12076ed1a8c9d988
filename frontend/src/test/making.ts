/** Small things made for tests, in inches, and a component drawn to text. */
import { TICKS_PER_64TH, TICKS_PER_INCH } from "../measure";
import { ID_INJECTION_KEY, ZINDEX_INJECTION_KEY } from "element-plus";
import { createSSRApp, h, type Component } from "vue";
import { renderToString } from "vue/server-renderer";
import type { Board, Part, Step } from "../api/client";
import { plainPart } from "../api/parts";
import { i18n } from "../i18n/i18n";
import { plainBoard, plainStation } from "../board/make";

export const IN = TICKS_PER_INCH;

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

/** A step that nothing is known of but its key, "O1.1/thickness", and what is said. */
export function aStep(key: string, values: Partial<Step> = {}): Step {
  const [piece, kind] = key.split("/");
  return {
    key,
    kind: kind ?? piece!,
    machine: "planer",
    board: "O1",
    piece: piece!,
    do: "",
    down: "",
    against: "",
    first: "",
    setting: 0,
    set_to: "",
    dimension: "thickness",
    passes: [],
    usual_passes: values.passes?.length ?? 0,
    turns: [],
    readings: [],
    stock_in: 0,
    stock_out: 0,
    tolerance: TICKS_PER_64TH,
    turn_over: 0,
    size: [0, 0, 0],
    leaves: "",
    check: "",
    why: "",
    obstacle: "",
    ways: [],
    pieces: [],
    marks: [],
    setup: "",
    after: [],
    hold: 0,
    minutes: 1,
    people: 1,
    does: "own",
    way: "machine",
    takes: [],
    gives: [],
    cuts: "",
    face_down: "",
    along: "",
    edge: [],
    knocked: [],
    fellows: [],
    spare: 0,
    shims: [],
    clean: 1,
    holds: 0,
    task: null,
    done: false,
    reading: null,
    ready: false,
    rests_until: "",
    ...values,
  };
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
  const app = createSSRApp({ render: () => h(component, props) }).use(i18n);
  // Without a browser the library asks where its ids and layers begin.
  app.provide(ID_INJECTION_KEY, { prefix: 1, current: 0 });
  app.provide(ZINDEX_INJECTION_KEY, { current: 0 });
  return renderToString(app);
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
