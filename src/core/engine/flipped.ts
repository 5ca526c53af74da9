import { flippedChain, flippedOutline, flippedPoint } from "../outline/flip";
import type { RoundedEnd, SeatedRecipe } from "../rows";
import type { PlacedBody } from "./kernel";

const flippedEnds = (ends: RoundedEnd[]): RoundedEnd[] =>
  ends.map((e) => ({ ...e, at: flippedPoint(e.at), out: flippedPoint(e.out) }));

/** A placed body as in a mirror that stands upright in its plane. */
export function flippedBody(body: PlacedBody): PlacedBody {
  switch (body.body) {
    case "prism":
      return {
        ...body,
        outline: flippedOutline(body.outline),
        ...(body.more ? { more: body.more.map(flippedOutline) } : {}),
        ...(body.ends ? { ends: flippedEnds(body.ends) } : {}),
        ...(body.edge
          ? {
              edge: {
                min: { x: -body.edge.max.x, y: body.edge.min.y },
                max: { x: -body.edge.min.x, y: body.edge.max.y },
              },
            }
          : {}),
      };
    case "wrapped":
      return { ...body, outlines: body.outlines.map(flippedOutline) };
    case "vee":
    case "wrappedVee":
      return { ...body, chains: body.chains.map(flippedChain) };
    case "tube":
    case "rib":
      return { ...body, chain: flippedChain(body.chain) };
    case "imported": {
      const { min, max } = body.box;
      const box = { min: { ...min, x: -max.x }, max: { ...max, x: -min.x } };
      const { mirrored, ...as } = body;
      return { ...as, box, ...(mirrored ? {} : { mirrored: true as const }) };
    }
    // A thread stays a right-hand one where its shaft is mirrored: nobody means the other.
    case "helix":
    case "revolved":
    case "turned":
      return body;
  }
}

/** A row's recipe as in a mirror that stands upright in its plane. */
export function flippedRecipe(recipe: SeatedRecipe): SeatedRecipe {
  if (recipe.op !== "leave" && recipe.op !== "cut") return recipe;
  const { body } = recipe;
  const places = recipe.places.map(flippedPoint);
  switch (body.body) {
    case "prism":
      return {
        ...recipe,
        places,
        body: {
          ...body,
          outline: flippedOutline(body.outline),
          ...(body.more ? { more: body.more.map(flippedOutline) } : {}),
          ...(body.ends ? { ends: flippedEnds(body.ends) } : {}),
        },
      };
    case "open":
      return {
        ...recipe,
        places,
        body: { ...body, chain: flippedChain(body.chain), side: body.side === "left" ? "right" : "left" },
      };
    case "wrapped":
      return { ...recipe, places, body: { ...body, outlines: body.outlines.map(flippedOutline) } };
    case "vee":
    case "wrappedVee":
      return { ...recipe, places, body: { ...body, chains: body.chains.map(flippedChain) } };
    case "tube":
    case "rib":
      return { ...recipe, places, body: { ...body, chain: flippedChain(body.chain) } };
    default:
      return { ...recipe, places };
  }
}
