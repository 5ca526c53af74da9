import * as THREE from "three";
import { OrbitControls } from "three/examples/jsm/controls/OrbitControls.js";
import { LineMaterial } from "three/examples/jsm/lines/LineMaterial.js";
import { LineSegments2 } from "three/examples/jsm/lines/LineSegments2.js";
import { LineSegmentsGeometry } from "three/examples/jsm/lines/LineSegmentsGeometry.js";
import type { Vec3 } from "@/core/geometry/vec";
import type { View } from "@/core/engine/kernel";
import type { Mesh } from "@/core/engine/kernel";
import { faceColours, hatchMaterial, type Palette } from "./ink";

interface Hit {
  point: Vec3;
  face: number;
  corner: Vec3 | null;
}
type Layer =
  | "holder"
  | "datum"
  | "outline"
  | "part"
  | "section"
  | "stock"
  | "ghost"
  | "paths"
  | "vise"
  | "print"
  | "marks"
  | "planes";

const never = () => false;
/** Faces lie a little behind the lines that are inked on them. */
const PUSHED_BACK = { polygonOffset: true, polygonOffsetFactor: 1.5, polygonOffsetUnits: 2 };

/** Draws the part as on a drafting table: flat tints by direction, inked edges. Draws on demand, never in a loop. */
export class StageScene {
  private renderer: THREE.WebGLRenderer;
  private scene = new THREE.Scene();
  private camera = new THREE.OrthographicCamera(-1, 1, 1, -1, -1000, 1000);
  private controls: OrbitControls;
  private layers = new Map<Layer, THREE.Group>();
  private lineMaterials: LineMaterial[] = [];
  private partMesh: THREE.Mesh | null = null;
  private picture: Mesh | null = null;
  private frame = 0;
  private size = { w: 1, h: 1 };
  private bounds = new THREE.Box3(new THREE.Vector3(-1, -1, -1), new THREE.Vector3(1, 1, 1));
  onDraw: () => void = () => {};

  constructor(
    private host: HTMLElement,
    private palette: Palette,
  ) {
    this.renderer = new THREE.WebGLRenderer({ antialias: true, alpha: true, preserveDrawingBuffer: true });
    this.renderer.localClippingEnabled = true;
    this.renderer.setPixelRatio(Math.min(window.devicePixelRatio, 2));
    this.renderer.domElement.style.display = "block";
    this.renderer.domElement.setAttribute("aria-hidden", "true");
    host.appendChild(this.renderer.domElement);
    this.camera.up.set(0, 0, 1);
    this.controls = new OrbitControls(this.camera, this.renderer.domElement);
    this.controls.enableDamping = false;
    this.controls.addEventListener("change", () => this.draw());
  }

  dispose(): void {
    cancelAnimationFrame(this.frame);
    this.controls.dispose();
    for (const name of this.layers.keys()) this.clear(name);
    this.renderer.dispose();
    this.renderer.domElement.remove();
  }

  private layer(name: Layer): THREE.Group {
    let g = this.layers.get(name);
    if (!g) {
      g = new THREE.Group();
      this.layers.set(name, g);
      this.scene.add(g);
    }
    return g;
  }
  clear(name: Layer): void {
    const g = this.layers.get(name);
    if (!g) return;
    g.traverse((o) => {
      const m = o as THREE.Mesh;
      m.geometry?.dispose();
      for (const mat of [m.material].flat().filter(Boolean) as THREE.Material[]) mat.dispose();
    });
    g.clear();
    this.lineMaterials = this.lineMaterials.filter((m) => g.parent && !disposed.has(m));
  }

  resize(w: number, h: number): void {
    this.size = { w: Math.max(1, w), h: Math.max(1, h) };
    this.renderer.setSize(this.size.w, this.size.h);
    for (const m of this.lineMaterials) m.resolution.set(this.size.w, this.size.h);
    this.frustum();
    this.draw();
  }
  private frustum(): void {
    const k = this.size.w / this.size.h;
    this.camera.left = -this.half * k;
    this.camera.right = this.half * k;
    this.camera.top = this.half;
    this.camera.bottom = -this.half;
    this.camera.updateProjectionMatrix();
  }
  private half = 1;
  private printOpacity = 0;

  setPalette(p: Palette): void {
    this.palette = p;
  }

  /** The box that a view is fitted to. */
  setBounds(min: Vec3, max: Vec3): boolean {
    const next = new THREE.Box3(new THREE.Vector3(min.x, min.y, min.z), new THREE.Vector3(max.x, max.y, max.z));
    const changed = !next.min.equals(this.bounds.min) || !next.max.equals(this.bounds.max);
    this.bounds = next;
    return changed;
  }

  /** Looks along a view and fits the box into the stage. Only the pictorial view can be turned by hand. */
  look(view: View, turnable: boolean): void {
    const centre = this.bounds.getCenter(new THREE.Vector3());
    const radius = Math.max(1e-3, this.bounds.getSize(new THREE.Vector3()).length());
    const right = v(view.right),
      up = v(view.up),
      eye = v(view.toEye);
    let w = 0,
      h = 0;
    for (let i = 0; i < 8; i++) {
      const c = new THREE.Vector3(
        i & 1 ? this.bounds.max.x : this.bounds.min.x,
        i & 2 ? this.bounds.max.y : this.bounds.min.y,
        i & 4 ? this.bounds.max.z : this.bounds.min.z,
      ).sub(centre);
      w = Math.max(w, Math.abs(c.dot(right)));
      h = Math.max(h, Math.abs(c.dot(up)));
    }
    this.half = Math.max(h, (w * this.size.h) / this.size.w) * 1.22;
    this.camera.zoom = 1;
    this.camera.near = -radius * 20;
    this.camera.far = radius * 20;
    // Looking straight along Z the up direction has to be another one.
    this.camera.up.copy(Math.abs(eye.z) > 0.99 ? up : new THREE.Vector3(0, 0, 1));
    this.camera.position.copy(centre).addScaledVector(eye, radius * 3);
    this.controls.target.copy(centre);
    this.controls.enableRotate = turnable;
    this.controls.mouseButtons = {
      LEFT: turnable ? THREE.MOUSE.ROTATE : THREE.MOUSE.PAN,
      MIDDLE: THREE.MOUSE.DOLLY,
      RIGHT: THREE.MOUSE.PAN,
    };
    this.camera.lookAt(centre);
    this.frustum();
    this.controls.update();
    this.draw();
  }

  private lines(
    points: Float32Array | number[],
    colour: string,
    width: number,
    options: { opacity?: number; onTop?: boolean } = {},
  ): LineSegments2 {
    const g = new LineSegmentsGeometry();
    g.setPositions(points as number[]);
    const m = new LineMaterial({
      color: new THREE.Color(colour).getHex(),
      linewidth: width,
      transparent: options.opacity !== undefined,
      opacity: options.opacity ?? 1,
      depthTest: !options.onTop,
    });
    m.resolution.set(this.size.w, this.size.h);
    m.addEventListener("dispose", () => disposed.add(m));
    this.lineMaterials.push(m);
    const l = new LineSegments2(g, m);
    if (options.onTop) l.renderOrder = 10;
    return l;
  }

  /** The part: every face tinted by its direction, the faces of the current row in layout dye. */
  setPart(
    mesh: Mesh | null,
    isCurrent: (face: number) => boolean,
    isPicked: (face: number) => boolean,
    hatched: Set<number> | null = null,
  ): void {
    this.clear("part");
    this.partMesh = null;
    this.picture = mesh;
    if (!mesh || !mesh.triangles.length) return this.draw();
    const geometry = new THREE.BufferGeometry();
    geometry.setAttribute("position", new THREE.BufferAttribute(mesh.positions, 3));
    geometry.setAttribute("color", new THREE.BufferAttribute(faceColours(mesh, this.palette, isCurrent, isPicked), 3));
    geometry.setIndex(new THREE.BufferAttribute(mesh.triangles, 1));
    const tinted = new THREE.MeshBasicMaterial({
      vertexColors: true,
      ...PUSHED_BACK,
      side: THREE.DoubleSide,
    });
    if (hatched) {
      const hatch = hatchMaterial(this.palette.steelLight, this.palette.ink, 1);
      hatch.polygonOffset = true;
      hatch.polygonOffsetFactor = 1.5;
      hatch.polygonOffsetUnits = 2;
      for (const g of mesh.groups) geometry.addGroup(g.start, g.count, hatched.has(g.face) ? 1 : 0);
      this.partMesh = new THREE.Mesh(geometry, [tinted, hatch]);
    } else this.partMesh = new THREE.Mesh(geometry, tinted);
    this.layer("part").add(this.partMesh);
    if (mesh.lines.length) this.layer("part").add(this.lines(mesh.lines, this.palette.ink, 1.5));
    this.draw();
  }

  /** Bodies beside the part, in tones of their own: what holds a piece. */
  setBodies(bodies: { mesh: Mesh; palette: Palette }[]): void {
    this.clear("holder");
    for (const { mesh, palette } of bodies) {
      const geometry = new THREE.BufferGeometry();
      geometry.setAttribute("position", new THREE.BufferAttribute(mesh.positions, 3));
      const colours = faceColours(mesh, palette, never, never);
      geometry.setAttribute("color", new THREE.BufferAttribute(colours, 3));
      geometry.setIndex(new THREE.BufferAttribute(mesh.triangles, 1));
      const tinted = new THREE.MeshBasicMaterial({ vertexColors: true, ...PUSHED_BACK, side: THREE.DoubleSide });
      this.layer("holder").add(new THREE.Mesh(geometry, tinted));
      if (mesh.lines.length) this.layer("holder").add(this.lines(mesh.lines, palette.ink, 1.2));
    }
    this.draw();
  }

  /** X0 Y0 Z0 of a setup, as three inked lines of a length; null for none. */
  setCross(size: number | null): void {
    const ways = [
      [size, 0, 0],
      [0, size, 0],
      [0, 0, size],
    ];
    const points = size === null ? [] : ways.flatMap((w) => [0, 0, 0, ...(w as number[])]);
    this.setLines("datum", [{ points, colour: this.palette.ink, width: 2, onTop: true }]);
  }

  /** A row that is being typed: its tool solid, see-through, in dye. */
  setGhost(mesh: Mesh | null): void {
    this.clear("ghost");
    if (mesh && mesh.triangles.length) {
      const g = new THREE.BufferGeometry();
      g.setAttribute("position", new THREE.BufferAttribute(mesh.positions, 3));
      g.setIndex(new THREE.BufferAttribute(mesh.triangles, 1));
      const body = new THREE.Mesh(
        g,
        new THREE.MeshBasicMaterial({
          color: this.palette.dyeLight,
          transparent: true,
          opacity: 0.3,
          depthTest: false,
          side: THREE.DoubleSide,
        }),
      );
      body.renderOrder = 8;
      this.layer("ghost").add(body);
      if (mesh.lines.length) this.layer("ghost").add(this.lines(mesh.lines, this.palette.dye, 1.4, { onTop: true }));
    }
    this.draw();
  }

  /** Lines and see-through faces of another kind: stock, vise, paths, marks. */
  setLines(
    layer: Layer,
    sets: { points: number[]; colour: string; width: number; opacity?: number; onTop?: boolean }[],
    faces: {
      positions: number[];
      hatch?: { ink: string; opacity: number };
      fill?: { colour: string; opacity: number };
    }[] = [],
  ): void {
    this.clear(layer);
    for (const s of sets) if (s.points.length) this.layer(layer).add(this.lines(s.points, s.colour, s.width, s));
    for (const f of faces) {
      const g = new THREE.BufferGeometry();
      g.setAttribute("position", new THREE.BufferAttribute(new Float32Array(f.positions), 3));
      const material = f.hatch
        ? hatchMaterial(null, f.hatch.ink, f.hatch.opacity)
        : new THREE.MeshBasicMaterial({
            color: f.fill!.colour,
            transparent: true,
            opacity: f.fill!.opacity,
            side: THREE.DoubleSide,
            depthWrite: false,
          });
      const m = new THREE.Mesh(g, material);
      m.renderOrder = 2;
      this.layer(layer).add(m);
    }
    this.draw();
  }

  /** A stretch of a print, laid flat into the view by its four corners. */
  setPrint(
    image: { url: string; corners: Vec3[]; uv: { u0: number; v0: number; u1: number; v1: number } } | null,
  ): void {
    this.clear("print");
    if (!image) return this.draw();
    new THREE.TextureLoader().load(image.url, (texture) => {
      this.clear("print");
      texture.colorSpace = THREE.SRGBColorSpace;
      const g = new THREE.BufferGeometry();
      const [a, b, c, d] = image.corners,
        { u0, v0, u1, v1 } = image.uv;
      g.setAttribute(
        "position",
        new THREE.BufferAttribute(new Float32Array([a, b, c, a, c, d].flatMap((p) => [p.x, p.y, p.z])), 3),
      );
      g.setAttribute(
        "uv",
        new THREE.BufferAttribute(new Float32Array([u0, v0, u1, v0, u1, v1, u0, v0, u1, v1, u0, v1]), 2),
      );
      const m = new THREE.Mesh(
        g,
        new THREE.MeshBasicMaterial({
          map: texture,
          transparent: true,
          opacity: this.printOpacity,
          depthTest: false,
          side: THREE.DoubleSide,
          clippingPlanes: this.wipePlane ? [this.wipePlane] : [],
        }),
      );
      // Over the part, under the lines that are drawn on top.
      m.renderOrder = 9;
      m.visible = this.printOpacity > 0;
      this.layer("print").add(m);
      this.draw();
    });
  }
  private wipePlane: THREE.Plane | null = null;
  /** Shows the print only left of a line, `share` of the way across the part; null shows all of it. */
  setWipe(share: number | null, right: Vec3): void {
    const r = v(right);
    const ends = [this.bounds.min, this.bounds.max].map((p) => p.dot(r));
    const lo = Math.min(...ends),
      hi = Math.max(...ends),
      margin = (hi - lo) * 0.15;
    this.wipePlane =
      share === null ? null : new THREE.Plane(r.clone().negate(), lo - margin + (hi - lo + 2 * margin) * share);
    this.layer("print").traverse((o) => {
      const m = (o as THREE.Mesh).material as THREE.MeshBasicMaterial | undefined;
      if (m) m.clippingPlanes = this.wipePlane ? [this.wipePlane] : [];
    });
    this.draw();
  }
  /** How strong the print lies over the part; kept for a picture that is still being loaded. */
  setPrintOpacity(opacity: number): void {
    this.printOpacity = opacity;
    this.layer("print").traverse((o) => {
      const m = (o as THREE.Mesh).material as THREE.MeshBasicMaterial | undefined;
      if (!m) return;
      m.opacity = opacity;
      o.visible = opacity > 0;
    });
    this.draw();
  }

  /** Where a point of the part is on the stage, in pixels. */
  project(p: Vec3): { x: number; y: number } {
    const q = v(p).project(this.camera);
    return { x: ((q.x + 1) / 2) * this.size.w, y: ((1 - q.y) / 2) * this.size.h };
  }
  /** Where a place on the stage lies in X and Y, looked at from the top. */
  onPlane(x: number, y: number): { x: number; y: number } {
    const q = new THREE.Vector3((x / this.size.w) * 2 - 1, 1 - (y / this.size.h) * 2, 0).unproject(this.camera);
    return { x: q.x, y: q.y };
  }
  /** Length of some pixels in the part, mm. */
  reach = (pixels: number): number => (pixels * 2 * this.half) / this.camera.zoom / this.size.h;
  /** Directions of X, Y and Z on the stage, for the inked arrows. */
  axes(): { x: number; y: number }[] {
    const r = new THREE.Vector3(),
      u = new THREE.Vector3();
    this.camera.matrixWorld.extractBasis(r, u, new THREE.Vector3());
    return [new THREE.Vector3(1, 0, 0), new THREE.Vector3(0, 1, 0), new THREE.Vector3(0, 0, 1)].map((a) => ({
      x: a.dot(r),
      y: -a.dot(u),
    }));
  }

  /** What is under a place on the stage; corners of edges within nine pixels are caught. */
  hit(x: number, y: number): Hit | null {
    if (!this.partMesh || !this.picture) return null;
    const ray = new THREE.Raycaster();
    ray.setFromCamera(new THREE.Vector2((x / this.size.w) * 2 - 1, 1 - (y / this.size.h) * 2), this.camera);
    const [found] = ray.intersectObject(this.partMesh, false);
    if (!found || found.faceIndex === undefined || found.faceIndex === null) return null;
    const t = found.faceIndex * 3;
    const group = this.picture.groups.find((g) => t >= g.start && t < g.start + g.count);
    let corner: Vec3 | null = null,
      best = 9;
    const l = this.picture.lines;
    for (let i = 0; i < l.length; i += 3) {
      const p = { x: l[i], y: l[i + 1], z: l[i + 2] };
      const s = this.project(p);
      const d = Math.hypot(s.x - x, s.y - y);
      if (d < best && v(p).distanceTo(found.point) < this.half * 0.2) {
        best = d;
        corner = p;
      }
    }
    return { point: { x: found.point.x, y: found.point.y, z: found.point.z }, face: group?.face ?? -1, corner };
  }

  /** Turns the pictorial view by hand, radians: round the upright axis, and over. Other views are moved along instead. */
  turn(round: number, over: number): void {
    const away = this.camera.position.clone().sub(this.controls.target);
    const side = new THREE.Vector3().crossVectors(this.camera.up, away).normalize();
    if (this.controls.enableRotate) {
      const steep = away.angleTo(this.camera.up) - over;
      away.applyAxisAngle(this.camera.up, round);
      if (steep > LEAST_STEEP && steep < Math.PI - LEAST_STEEP)
        away.applyAxisAngle(side.applyAxisAngle(this.camera.up, round), -over);
      this.camera.position.copy(this.controls.target).add(away);
    } else {
      const up = new THREE.Vector3().crossVectors(away, side).normalize();
      const way = side.multiplyScalar(-round * this.half).addScaledVector(up, over * this.half);
      this.camera.position.add(way);
      this.controls.target.add(way);
    }
    this.camera.lookAt(this.controls.target);
    this.controls.update();
    this.draw();
  }

  zoomBy(factor: number): void {
    this.camera.zoom = Math.min(50, Math.max(0.2, this.camera.zoom * factor));
    this.camera.updateProjectionMatrix();
    this.draw();
  }

  /** The stage as a PNG, for the record. */
  png(): string {
    this.renderer.render(this.scene, this.camera);
    return this.renderer.domElement.toDataURL("image/png");
  }

  draw(): void {
    if (this.frame) return;
    this.frame = requestAnimationFrame(() => {
      this.frame = 0;
      this.renderer.render(this.scene, this.camera);
      this.onDraw();
    });
  }
}

/** How near the eye comes to straight above or below, radians. */
const LEAST_STEEP = 0.05;
const disposed = new WeakSet<LineMaterial>();
const v = (p: Vec3) => new THREE.Vector3(p.x, p.y, p.z);
