// Models and drawings by JSCAD: solids in a list, booleans, instances turned; DXF, SVG, STL, OBJ, 3MF.
import modeling from "@jscad/modeling";
import threeMf from "@jscad/3mf-serializer";
import dxf from "@jscad/dxf-serializer";
import obj from "@jscad/obj-serializer";
import stl from "@jscad/stl-serializer";
import svg from "@jscad/svg-serializer";
import { writer } from "./corpus.mjs";

const { booleans, primitives, transforms, geometries, extrusions } = modeling;
const { cuboid, cylinder, rectangle, circle, polygon, roundedRectangle } = primitives;
const { translate, rotate } = transforms;
const w = writer("jscad");

function bytes(parts) {
  return Buffer.concat(parts.map((p) => (typeof p === "string" ? Buffer.from(p) : Buffer.from(p.buffer ?? p))));
}
function named(geometry, name) {
  return Object.assign(geometry, { name, id: name });
}

const seat = named(cuboid({ size: [400, 300, 30] }), "Seat");
const leg = named(booleans.subtract(cuboid({ size: [40, 40, 420] }), translate([0, 10, 190], cuboid({ size: [20, 30, 60] }))), "Leg");
const legs = [0, 1, 2, 3].map((k) => named(translate([100 * k, 300, 200], rotate([0.1 * k, 0, 0], leg)), `Leg ${k + 1}`));
const dowel = named(translate([0, 600, 0], cylinder({ radius: 12.5, height: 350, segments: 64 })), "Rung");
const gusset = named(translate([300, 700, 0], extrusions.extrudeLinear({ height: 19 }, polygon({ points: [[0, 0], [200, 0], [200, 60], [60, 200], [0, 200]] }))), "Gusset");
const stool = [seat, ...legs, dowel, gusset];
const truth = (names) => [["Seat", 1, 400, 300, 30], ["Leg", 4, 420, 40, 40], ["Rung", 1, 350, 25, 25], ["Gusset", 1, 200, 200, 19]].map((row) => (names ? row : ["", ...row.slice(1)]));
w.file("stool.stl", bytes(stl.serialize({ binary: true }, ...stool)), truth(false), "mm");
w.file("stool-ascii.stl", bytes(stl.serialize({ binary: false }, ...stool)), truth(false), "mm");
w.file("stool.obj", bytes(obj.serialize({}, ...stool)), truth(false), "mm", "one object for all of them or one each, as the serializer has it");
w.file("stool.3mf", bytes(threeMf.serialize({ unit: "millimeter" }, ...stool)), truth(false));

const plate = booleans.subtract(roundedRectangle({ size: [600, 200], roundRadius: 20, segments: 64 }), translate([-200, 0], circle({ radius: 20, segments: 48 })), translate([200, 0], rectangle({ size: [60, 80] })));
const slats = [0, 1, 2].map((k) => translate([0, 200 + 70 * k], rectangle({ size: [450, 45] })));
const tapered = translate([-300, 500], polygon({ points: [[0, 0], [700, 0], [700, 40], [0, 70]] }));
const flat = [["", 1, 600, 200, 0], ["", 3, 450, 45, 0], ["", 1, 700, 70, 0]];
w.file("plates.dxf", bytes(dxf.serialize({}, plate, ...slats, tapered)), flat, "mm");
w.file("plates.svg", bytes(svg.serialize({ unit: "mm" }, plate, ...slats, tapered)), flat, "mm", "paths with holes");
w.file("plates-poly.dxf", bytes(dxf.serialize({ geom2To: "polyline" }, ...slats, tapered)), flat.slice(1), "mm");
void geometries;
w.done();
