// Drawings by svg.js and d3 in a page without a browser: groups, symbols, transforms as matrices, px and mm.
import { SVG, registerWindow } from "@svgdotjs/svg.js";
import { createSVGWindow } from "svgdom";
import * as d3 from "d3";
import { JSDOM } from "jsdom";
import { writer } from "./corpus.mjs";

const w = writer("svgjs");
const window = createSVGWindow();
registerWindow(window, window.document);

const draw = SVG().addTo(window.document.documentElement).size("700mm", "500mm").viewbox(0, 0, 700, 500);
draw.rect(700, 500).fill("#fff");
const group = draw.group().attr("id", "Door-stile").transform({ rotate: 90, origin: [100, 100] });
group.rect(450, 60).move(50, 70);
const symbol = draw.symbol();
symbol.rect(320, 55);
for (let k = 0; k < 2; k++) draw.use(symbol).move(250, 50 + 90 * k);
draw.polygon("250,300 600,300 600,360 420,400 250,360").attr("id", "top-rail");
w.file("door.svg", draw.svg(), [["Door stile", 1, 450, 60, 0], ["", 2, 320, 55, 0], ["top rail", 1, 350, 100, 0]], "", "a page, a turned group, symbols");

const { document } = new JSDOM("<body></body>").window;
const svg = d3.select(document.body).append("svg").attr("xmlns", "http://www.w3.org/2000/svg").attr("width", "1000").attr("height", "600");
const rows = [[600, 90], [600, 90], [420, 120]];
const g = svg.selectAll("g").data(rows).join("g").attr("transform", (_, k) => `translate(20,${20 + 150 * k})`);
g.append("path").attr("d", ([a, b]) => d3.line()([[0, 0], [a, 0], [a, b], [0, b]]) + "Z").attr("fill", "none");
g.append("text").attr("x", 10).attr("y", 40).text((_, k) => ["Rail", "Rail", "Panel"][k]);
w.file("d3.svg", document.body.innerHTML, [["Rail", 2, 600, 90, 0], ["Panel", 1, 420, 120, 0]], "mm", "no unit");
w.done();
