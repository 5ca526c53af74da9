import type { ShopSettings } from "./shop";
import { keyOfContent } from "../base/key";

type Path = [string, ...string[]];

/** Every figure of a shop's settings by where it stands; jaw blanks and the school of relief are one each. */
function figuresOf(settings: ShopSettings): Map<string, { path: Path; value: unknown }> {
  const all: [Path, unknown][] = [
    [["relief"], settings.relief],
    [["jawBlanks"], settings.jawBlanks],
    ...Object.entries(settings.limits).map(([k, v]): [Path, unknown] => [["limits", k], v]),
    ...(["mm", "in"] as const).flatMap((f) =>
      Object.entries(settings.fixtures[f]).map(([k, v]): [Path, unknown] => [["fixtures", f, k], v]),
    ),
  ];
  return new Map(all.map(([path, value]) => [path.join("."), { path, value }]));
}

function withValue(settings: ShopSettings, path: Path, value: unknown): ShopSettings {
  const next = structuredClone(settings) as Record<string, unknown>;
  let at = next;
  for (const step of path.slice(0, -1)) at = at[step] as Record<string, unknown>;
  if (value === undefined) delete at[path[path.length - 1]];
  else at[path[path.length - 1]] = value;
  return next as ShopSettings;
}

/**
 * What one window has set since `base`, put on top of what others have kept meanwhile.
 * @returns the settings of both; and the figures that both have set, where the one that was kept first stands
 */
export function mergedSettings(
  base: ShopSettings,
  mine: ShopSettings,
  theirs: ShopSettings,
): { settings: ShopSettings; both: string[] } {
  const [before, here, there] = [base, mine, theirs].map(figuresOf);
  let settings = theirs;
  const both: string[] = [];
  for (const name of new Set([...before.keys(), ...here.keys()])) {
    const [was, is, other] = [before, here, there].map((m) => m.get(name)?.value);
    const same = (a: unknown, b: unknown) => keyOfContent(a) === keyOfContent(b);
    if (same(was, is) || same(is, other)) continue;
    if (!same(was, other)) both.push(name.split(".").at(-1)!);
    else settings = withValue(settings, (here.get(name) ?? before.get(name))!.path, is);
  }
  return { settings, both };
}
