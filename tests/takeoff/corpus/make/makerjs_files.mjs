// Drawings by maker.js, dxf-writer and dxf of another hand: models in models, layers, arcs; DXF and SVG.
import dxfWriter from "dxf-writer";
import { DxfWriter, point3d, Units } from "@tarikjabiri/dxf";
import makerjs from "makerjs";
import { writer } from "./corpus.mjs";

const w = writer("makerjs");
const m = makerjs.models;
const at = (model, x, y) => makerjs.model.move(model, [x, y]);

const side = new m.RoundRectangle(620, 240, 25);
side.models = { dado: at(new m.Rectangle(18, 120), 300, 60), bore: at(new m.Holes(6, [[60, 60], [560, 60]]), 0, 0) };
const board = {
  units: makerjs.unitType.Millimeter,
  models: { "side-panel": side, "shelf-1": at(new m.Rectangle(600, 220), 0, 300), "shelf-2": at(new m.Rectangle(600, 220), 0, 560), oval: at(new m.Oval(400, 160), 0, 820) },
};
const truth = [["side panel", 1, 620, 240, 0], ["shelf", 2, 600, 220, 0], ["oval", 1, 400, 160, 0]];
const nameless = truth.map((row) => ["", ...row.slice(1)]);
w.file("cabinet.dxf", makerjs.exporter.toDXF(board), nameless, "", "loops of lines and arcs, a dado, bores");
w.file("cabinet.svg", makerjs.exporter.toSVG(board, { useSvgPathOnly: false }), nameless, "", "lines and arcs one by one");
w.file("cabinet-paths.svg", makerjs.exporter.toSVG(board), nameless, "", "chains as paths");
const inch = { units: makerjs.unitType.Inch, models: { rail: new m.Rectangle(30, 3.5), stile: at(new m.Rectangle(24, 3.5), 0, 6) } };
w.file("rails-inch.dxf", makerjs.exporter.toDXF(inch), [["", 1, 762, 88.9, 0], ["", 1, 609.6, 88.9, 0]]);
const finger = makerjs.model.combineUnion(new m.Rectangle(300, 90), at(new m.Rectangle(40, 30), 300, 30));
w.file("tenon.dxf", makerjs.exporter.toDXF({ units: makerjs.unitType.Millimeter, models: { finger } }), [["", 1, 340, 90, 0]]);

const plain = new dxfWriter();
plain.setUnits("Millimeters");
plain.addLayer("oak 20", dxfWriter.ACI.RED, "CONTINUOUS");
plain.setActiveLayer("oak 20");
plain.drawPolyline([[0, 0], [800, 0], [800, 95], [0, 95]], true);
plain.drawText(30, 30, 12, 0, "Apron 2x");
plain.drawRect(0, 200, 300, 260);
plain.drawCircle(600, 400, 150);
w.file("apron.dxf", plain.toDxfString(), [["Apron", 2, 800, 95, 0], ["", 1, 300, 60, 0], ["", 1, 300, 300, 0]]);

const other = new DxfWriter();
other.setUnits(Units.Centimeters);
other.addLWPolyline([{ point: point3d(0, 0) }, { point: point3d(80, 0), bulge: 1 }, { point: point3d(80, 12) }, { point: point3d(0, 12) }], { flags: 1 });
other.addLine(point3d(0, 30), point3d(50, 30));
other.addLine(point3d(50, 30), point3d(50, 38));
other.addLine(point3d(50, 38), point3d(0, 38));
other.addLine(point3d(0, 38), point3d(0, 30));
w.file("cm.dxf", other.stringify(), [["", 1, 860, 120, 0], ["", 1, 500, 80, 0]], "", "in cm");
w.done();
