import * as THREE from "three";
import type { Mesh } from "@/core/engine/kernel";

/** The colours of the table, read from the design tokens. */
export interface Palette {
  ink: string;
  steel: string;
  steelLight: string;
  steelDark: string;
  dye: string;
  dyeLight: string;
  dyeMid: string;
  brass: string;
  vermilion: string;
  paper: string;
  /** What holds a piece: jaws, plates. */
  jaw: string;
  jawLight: string;
  jawDark: string;
}

export function readPalette(): Palette {
  const css = getComputedStyle(document.documentElement);
  const t = (name: string) => css.getPropertyValue(name).trim();
  const dark = document.documentElement.dataset.light === "dark";
  return {
    ink: dark ? "#0d1013" : t("--ink"),
    steel: t("--steel"),
    steelLight: t("--steel-light"),
    steelDark: t("--steel-dark"),
    dye: dark ? "#4a63d0" : t("--dye"),
    dyeLight: t("--dye-light"),
    dyeMid: t("--dye-mid"),
    brass: t("--brass-line"),
    vermilion: t("--vermilion"),
    paper: t("--paper"),
    jaw: t("--jaw"),
    jawLight: t("--jaw-light"),
    jawDark: t("--jaw-dark"),
  };
}

/** A tint by direction: what looks up is light, what looks to the front is middle, what looks right is dark. */
function tint(nx: number, ny: number, nz: number, tones: THREE.Color[], out: THREE.Color): void {
  const [light, middle, dark] = tones;
  const up = Math.max(0, nz),
    side = Math.sqrt(nx * nx + ny * ny) || 1e-9;
  const right = (nx / side + 1) / 2;
  const flank = middle.clone().lerp(dark, right * 0.9 + (ny > 0 ? 0.1 : 0));
  out.copy(flank).lerp(light, up);
  if (nz < 0) out.lerp(dark, -nz * 0.6);
}

/** Colours of all vertices: steel tints, layout dye on the faces of the current row. */
export function faceColours(
  mesh: Mesh,
  p: Palette,
  isCurrent: (face: number) => boolean,
  isPicked: (face: number) => boolean,
): Float32Array {
  const steel = [p.steelLight, p.steel, p.steelDark].map((c) => new THREE.Color(c));
  const dye = [p.dye, p.dyeLight, p.dyeMid].map((c) => new THREE.Color(c));
  const brass = [p.brass, p.brass, p.brass].map((c, i) =>
    new THREE.Color(c).lerp(new THREE.Color(p.paper), 0.35 - 0.15 * i),
  );
  const colours = new Float32Array(mesh.positions.length);
  const c = new THREE.Color();
  for (const g of mesh.groups) {
    const tones = isPicked(g.face) ? brass : isCurrent(g.face) ? dye : steel;
    for (let t = g.start; t < g.start + g.count; t++) {
      const i = mesh.triangles[t] * 3;
      tint(mesh.normals[i], mesh.normals[i + 1], mesh.normals[i + 2], tones, c);
      colours[i] = c.r;
      colours[i + 1] = c.g;
      colours[i + 2] = c.b;
    }
  }
  return colours;
}

/** Hatching at 45 degrees on the screen, as on a drawing: on a ground, or on nothing. */
export function hatchMaterial(ground: string | null, ink: string, opacity: number): THREE.ShaderMaterial {
  return new THREE.ShaderMaterial({
    uniforms: {
      ground: { value: new THREE.Color(ground ?? "#000") },
      ink: { value: new THREE.Color(ink) },
      hasGround: { value: ground ? 1 : 0 },
      strength: { value: opacity },
    },
    vertexShader: "void main(){ gl_Position = projectionMatrix * modelViewMatrix * vec4(position, 1.0); }",
    fragmentShader: `uniform vec3 ground; uniform vec3 ink; uniform float hasGround; uniform float strength;
      void main(){
        float d = mod(gl_FragCoord.x + gl_FragCoord.y, 10.0);
        float line = 1.0 - smoothstep(0.6, 1.5, abs(d - 5.0));
        if (hasGround > 0.5) gl_FragColor = vec4(mix(ground, ink, line * 0.8), 1.0);
        else { if (line < 0.05) discard; gl_FragColor = vec4(ink, line * strength); }
        #include <colorspace_fragment>
      }`,
    transparent: !ground,
    side: THREE.DoubleSide,
    depthWrite: Boolean(ground),
  });
}
