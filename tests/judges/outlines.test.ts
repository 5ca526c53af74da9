import { execFileSync, spawnSync } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { readCard } from '@/core/callout';
import { numberScope } from '@/core/engine/numbers';
import { combine, offsetRegion, oriented, type Region } from '@/core/outline/boolean';
import { evaluateOutlines } from '@/core/outline/evaluateOutline';
import { loopArea, sampleLoop } from '@/core/outline';
import { outlineDxf } from '@/io/dxfOutlines';

// Judges of outlines: Debian's python3-shapely on fine flattenings, python3-ezdxf on files. Where they are missing the tests say so and are skipped.
const python = '/usr/bin/python3';
const has = (what: string) => spawnSync(python, ['-c', `import ${what}`]).status === 0;
const judge = (there: boolean) => (there ? it : it.skip);
const ask = (script: string, input: unknown) => JSON.parse(execFileSync(python, ['-c', script], { encoding: 'utf8', input: JSON.stringify(input), maxBuffer: 1e8 }).trim().split('\n').pop()!) as number[];
const dir = mkdtempSync(path.join(tmpdir(), 'sgorbia-outlines-'));
afterAll(() => rmSync(dir, { recursive: true, force: true }));

const regionOf = (...lines: string[]): Region => {
  const { job, errors } = readCard(['UNIT mm', 'OUTLINE "o"', ...lines, 'END'].join('\n'));
  if (errors.length) throw new Error(errors[0].message);
  const [e] = evaluateOutlines(job.outlines, numberScope(job)).values();
  if (e.problems.length) throw new Error(e.problems[0].message);
  return e.region;
};
const shapes: Record<string, Region> = {
  star: regionOf('STAR 7 OD 60 ID 26', 'ROUND 1.5 ALL'), slot: regionOf('SLOT 50 X 14 AT 6,3 TURN 25'), ring: regionOf('RING OD 44 ID 30 AT 12,-4'), gear: regionOf('RECTANGLE 8 X 14 AT 0,24', 'ROUND 3 OUTSIDE', 'REPEAT 9X'),
  link: regionOf('LINK ⌀30 AT -20,0 ⌀12 AT 24,10'), plate: regionOf('START -30,-20', 'LINE TO X 30', 'LINE TO Y 20', 'LINE TO X 24', 'ARC TO 4,20 R 10 CW', 'LINE TO X -30', 'CLOSE'), segment: regionOf('SEGMENT ⌀50 HEIGHT 14 AT 0,-20'),
};
const fine = (r: Region, step = Math.PI / 3000) => oriented(r).map((l) => sampleLoop(l, step).map((p) => [p.x, p.y]));
const area = (r: Region) => r.reduce((s, l) => s + loopArea(l), 0);
const build = `
import json,sys
from shapely.geometry import Polygon
from shapely.ops import unary_union
def region(loops):
    p=Polygon()
    for l in loops: p=p.symmetric_difference(Polygon(l).buffer(0))
    return p
data=json.load(sys.stdin)
`;

describe('outlines before another library', () => {
  judge(has('shapely'))('joined, cut out and overlapped have the areas shapely finds, for every pair of shapes', () => {
    const names = Object.keys(shapes), pairs = names.flatMap((a, i) => names.slice(i + 1).map((b) => [a, b] as const));
    const theirs = ask(`${build}
s={k:region(v) for k,v in data["shapes"].items()}
print(json.dumps([x for a,b in data["pairs"] for x in (s[a].union(s[b]).area,s[a].difference(s[b]).area,s[a].intersection(s[b]).area)]))`, { shapes: Object.fromEntries(names.map((n) => [n, fine(shapes[n])])), pairs });
    pairs.forEach(([a, b], i) => (['join', 'cutout', 'overlap'] as const).forEach((how, k) => {
      const ours = area(oriented(combine(shapes[a], shapes[b], how)));
      expect([a, b, how, Math.abs(ours - theirs[3 * i + k]) < 2e-3 + 2e-6 * ours]).toEqual([a, b, how, true]);
    }));
    expect(pairs.length).toBeGreaterThan(15);
  });
  judge(has('shapely'))('offset to either side have the areas of shapely\'s buffer', () => {
    const asked = Object.entries(shapes).flatMap(([n, r]) => [-4, -1.2, 0.8, 3, 9].map((by) => ({ n, by, loops: fine(r, Math.PI / 600) })));
    // Flattened finer still, the judge's own buffer goes wrong inwards: 600 chords a half circle is where it agrees with closed forms.
    const theirs = ask(`${build}\nprint(json.dumps([region(q["loops"]).buffer(q["by"],resolution=800).area for q in data]))`, asked);
    asked.forEach(({ n, by }, i) => {
      const ours = area(offsetRegion(shapes[n], by));
      expect([n, by, Math.abs(ours - theirs[i]) < 5e-3 + 5e-6 * theirs[i]]).toEqual([n, by, true]);
    });
  });
  judge(has('ezdxf'))('written as DXF pass an audit, arcs as arcs', () => {
    const { job } = readCard('UNIT mm\nOUTLINE "link"\nLINK ⌀30 AT -20,0 ⌀12 AT 24,10\nCIRCLE ⌀6 AT -20,0\nEND');
    const file = path.join(dir, 'link.dxf');
    writeFileSync(file, outlineDxf([...evaluateOutlines(job.outlines, numberScope(job)).values()], 'mm'));
    const r = ask('import ezdxf,json,sys\nd=ezdxf.readfile(json.load(sys.stdin))\nm=d.modelspace()\nprint(json.dumps([len(d.audit().errors),len(m.query("LINE")),len(m.query("ARC")),len(m.query("CIRCLE")),m.query("ARC")[0].dxf.radius+m.query("ARC")[1].dxf.radius]))', file);
    expect(r).toEqual([0, 2, 2, 1, expect.closeTo(21, 9)]);
  });
});
