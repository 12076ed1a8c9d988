// Scenes by three.js: groups with names, instances, mirrored groups, lathes, extrusions; glTF, OBJ, STL, PLY.
import * as THREE from "three";
import { GLTFExporter } from "three/addons/exporters/GLTFExporter.js";
import { OBJExporter } from "three/addons/exporters/OBJExporter.js";
import { PLYExporter } from "three/addons/exporters/PLYExporter.js";
import { STLExporter } from "three/addons/exporters/STLExporter.js";
import { writer } from "./corpus.mjs";

const w = writer("three");
globalThis.FileReader = class {
  async readAsArrayBuffer(blob) {
    this.result = await blob.arrayBuffer();
    this.onloadend();
  }
  async readAsDataURL(blob) {
    this.result = "data:application/octet-stream;base64," + Buffer.from(await blob.arrayBuffer()).toString("base64");
    this.onloadend();
  }
};

globalThis.requestAnimationFrame = (f) => f();

const oak = new THREE.MeshStandardMaterial({ name: "Oak", color: 0xc8a060 });
const ash = new THREE.MeshStandardMaterial({ name: "Ash", color: 0xe0d0a0 });

function put(parent, geometry, material, name, place = [0, 0, 0], turn = [0, 0, 0], scale = [1, 1, 1]) {
  const mesh = new THREE.Mesh(geometry, material);
  mesh.name = name;
  mesh.position.set(...place);
  mesh.rotation.set(...turn);
  mesh.scale.set(...scale);
  parent.add(mesh);
  return mesh;
}

/** A bench in `per` units a metre. */
function bench(per) {
  const scene = new THREE.Scene();
  const group = new THREE.Group();
  group.name = "Bench";
  group.rotation.y = 0.3;
  scene.add(group);
  const box = (a, b, c) => new THREE.BoxGeometry(a * per, b * per, c * per);
  const leg = box(0.06, 0.42, 0.06);
  for (let k = 0; k < 4; k++) put(group, leg, oak, `Leg_${k + 1}`, [k * per, 0, 0], [0.1, 0, k % 2 ? 0.05 : -0.05]);
  put(group, box(1.2, 0.035, 0.32), ash, "Seat", [0, 1 * per, 0]);
  const bracket = new THREE.Shape([[0, 0], [0.15, 0], [0.15, 0.04], [0.04, 0.12], [0, 0.12]].map(([x, y]) => new THREE.Vector2(x * per, y * per)));
  const made = new THREE.ExtrudeGeometry(bracket, { depth: 0.02 * per, bevelEnabled: false });
  put(group, made, oak, "Bracket right", [0, 2 * per, 0]);
  put(group, made, oak, "Bracket left", [1 * per, 2 * per, 0], [0, 0, 0], [-1, 1, 1]);
  const spindle = new THREE.LatheGeometry([[0.0001, 0], [0.012, 0], [0.018, 0.2], [0.012, 0.4], [0.0001, 0.4]].map(([x, y]) => new THREE.Vector2(x * per, y * per)), 32);
  for (let k = 0; k < 3; k++) put(group, spindle, ash, `Spindle.00${k + 1}`, [k * 0.2 * per, 3 * per, 0], [0, 0, 0.2]);
  scene.updateMatrixWorld(true);
  return scene;
}
const truth = [["Leg", 4, 420, 60, 60], ["Seat", 1, 1200, 320, 35], ["Bracket", 2, 150, 120, 20], ["Spindle", 3, 400, 36, 36]];
const nameless = truth.map((row) => ["", ...row.slice(1)]);

async function glb(scene) {
  return Buffer.from(await new GLTFExporter().parseAsync(scene, { binary: true }));
}
w.file("bench.glb", await glb(bench(1)), truth, "m", "in metres, a mirrored node, lathes");
w.file("bench-mm.glb", await glb(bench(1000)), truth, "mm", "in mm, against the format's own word");
w.file("bench.gltf", JSON.stringify(await new GLTFExporter().parseAsync(bench(1), { binary: false })), truth, "m", "as text, its buffers within");
w.file("bench.obj", new OBJExporter().parse(bench(1000)), truth, "mm");
w.file("bench.stl", new STLExporter().parse(bench(1000)), nameless, "mm", "text, one solid");
w.file("bench-binary.stl", Buffer.from(new STLExporter().parse(bench(1000), { binary: true }).buffer), nameless, "mm");
w.file("bench.ply", new PLYExporter().parse(bench(100), () => {}, {}), nameless, "cm", "in cm");
w.file("bench-binary.ply", Buffer.from(new PLYExporter().parse(bench(39.37007874), () => {}, { binary: true })), nameless, "in", "in inches, binary");

// One geometry with a group for each material; an InstancedMesh.
const scene = new THREE.Scene();
const two = new THREE.BoxGeometry(900, 120, 22);
put(scene, two, [oak, ash, oak, ash, oak, ash], "Apron");
const many = new THREE.InstancedMesh(new THREE.BoxGeometry(300, 40, 12), ash, 5);
many.name = "Slat";
for (let k = 0; k < 5; k++) many.setMatrixAt(k, new THREE.Matrix4().makeTranslation(0, 300 + 60 * k, 0));
scene.add(many);
scene.updateMatrixWorld(true);
w.file("instanced.glb", await glb(scene), [["Apron", 1, 900, 120, 22], ["Slat", 5, 300, 40, 12]], "mm", "six materials on one board, instances by an extension");
w.done();
