import { evaluateNumber, type NumberScope, type Quantity } from "../number";
import type { OutlineItem } from "./items";
import { Unknowns } from "./solve/dual";
import type { Equation } from "./solve/system";
import { dimensionKinds, relationKinds } from "./relationKinds";
import { Refusal, Terms, type Clause, type Faults, type Said } from "./relationTerms";
import type { Walk } from "./walk";

/** What the number of a dimension is. */
const quantities: Record<Extract<Said, { item: "dimension" }>["dimension"], Quantity> = {
  distance: "coordinate",
  dx: "coordinate",
  dy: "coordinate",
  angle: "angle",
  length: "length",
  radius: "length",
  diameter: "length",
};

/**
 * Equations of the relations and dimensions of a walk. Where an equation has two sides (left or right of a line,
 * inside or outside a circle) the side of the first guess is kept: a mirror solution is never chosen by itself.
 */
export function relationEquations(
  walk: Walk,
  items: OutlineItem[],
  scope: NumberScope,
): { equations: Equation[]; problems: Faults } {
  const equations: Equation[] = [];
  const problems: Faults = [];
  const terms = new Terms(walk, new Unknowns(walk.system.start));
  items.forEach((it, item) => {
    if (it.item !== "relation" && it.item !== "dimension") return;
    const made = clausesOf(it, item, terms, scope, problems);
    if (made instanceof Refusal) problems.push({ item, message: made.message, expected: made.expected });
    else {
      const words = `${it.item === "relation" ? it.relation : it.dimension} ${it.of.join(" ")}`;
      for (const c of made) equations.push({ ...c, item, kind: it.item, vars: [...new Set(c.vars)], words });
    }
  });
  return { equations, problems };
}

function clausesOf(it: Said, item: number, terms: Terms, scope: NumberScope, problems: Faults): Clause[] | Refusal {
  if (it.item === "relation") return terms.missing(it.of) ?? relationKinds[it.relation](terms, it.of);
  if (it.value === "?") return [];
  const value = evaluateNumber(it.value, quantities[it.dimension], scope);
  if (!value.ok) {
    problems.push({ ...value.problems[0], item });
    return [];
  }
  return terms.missing(it.of) ?? dimensionKinds[it.dimension](terms, it.of, value.value.value);
}
