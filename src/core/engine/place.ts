import { problems } from "./problems";
import { fail, ok, type Result } from "../base/result";
import { CONTACT, PARALLEL } from "../geometry/tolerance";
import { dot, type Frame } from "../geometry/vec";
import { type Recipe, type SeatedRecipe } from "../rows";
import type { Standing } from "./advance";
import { placeCopies } from "./copies";
import { edgesByMeaning } from "./edgesByMeaning";
import type { Element } from "./element";
import type { SingleStep } from "./kernel";
import type { PlacedRow } from "./placedRow";
import { placeSeated } from "./placeSeated";
import { frameOf, shaftOfRow, type RowPlanes, type Seat } from "./planes";

/** A row ready for the kernel, with the planes it offers to later rows. */
export interface Placed {
  /** Null where the row takes nothing of the part but stock, or is done already (`reached`). */
  step: SingleStep | null;
  /** Further steps, where the places of the row do not all go equally deep. */
  more?: SingleStep[];
  planes: RowPlanes;
  thru: boolean;
  /** The part with every copy of a repeat, which are put there one after the other. */
  reached?: Standing;
  /** How deep it goes, where its row does not say so in a number. */
  depth?: number;
}

const nothing: RowPlanes = { start: null, floor: null, top: null };

/** Puts a recipe on a state: finds its plane, works out how far it goes, picks the edges it means. */
export function place(recipe: Recipe, row: string, seat: Seat, at: Standing): Result<Placed> {
  switch (recipe.op) {
    case "repeat": {
      const made = placeCopies(recipe, row, seat, at, (r, of, frame, here) => {
        const placed = placeSeated(r, of, frame, here);
        return placed.ok
          ? ok({ steps: [placed.value.step, ...(placed.value.more ?? [])], thru: placed.value.thru })
          : placed;
      });
      if (!made.ok) return made;
      const { reached, ...known } = made.value;
      return ok({ step: null, planes: { ...nothing, ...known }, thru: false, reached });
    }
    case "said":
      return placeSaid(recipe, seat);
    case "edges":
      return placeEdges(recipe, row, seat);
    case "shell":
      return placeShell(recipe, row, seat);
    default:
      return placeOnPlane(recipe, row, seat);
  }
}

function placeOnPlane(recipe: SeatedRecipe, row: string, seat: Seat): Result<Placed> {
  if (recipe.op !== "leave" && seat.key === null) return noPart;
  // A facing without a depth takes what stock stands over its plane.
  const frame = frameOf(recipe.plane, seat);
  if (!frame.ok) return frame;
  if (recipe.op === "face" && recipe.depth === 0)
    return ok({ step: null, planes: { start: frame.value, floor: frame.value, top: null, elements: [] }, thru: false });
  const placed = placeSeated(recipe, row, frame.value, seat);
  return placed.ok ? ok(withElement(recipe, row, frame.value, placed.value)) : placed;
}

function withElement(recipe: SeatedRecipe, row: string, frame: Frame, placed: PlacedRow): Placed {
  const steps = [placed.step, ...(placed.more ?? [])];
  const element: Element = { row, recipe, frame, steps, thru: placed.thru };
  return { ...placed, planes: { ...placed.planes, elements: [element] } };
}

const noPart = fail(problems.nothingToCut());

function placeEdges(recipe: Extract<Recipe, { op: "edges" }>, row: string, seat: Seat): Result<Placed> {
  const { kernel, key } = seat;
  if (key === null) return noPart;
  const edges = edgesByMeaning(recipe.edges, { ...seat, key });
  if (!edges.ok) return edges;
  const { treatment, size, angle } = recipe;
  const step: SingleStep = {
    op: "edges",
    row,
    treatment,
    size,
    angle,
    edges: edges.value,
    ...(recipe.fitting && { fitting: true }),
  };
  const [all, faces] = [kernel.edges(key), kernel.faces(key)];
  const marks = edges.value.map((e) => ({ edge: all[e.edge], face: faces[e.face].normal }));
  const element: Element = { row, recipe, frame: null, steps: [step], thru: false, marks };
  return ok({ step, planes: { ...nothing, elements: [element] }, thru: false });
}

/** What is said of a shaft: the shaft has to be there and be long enough. */
function placeSaid(recipe: Extract<Recipe, { op: "said" }>, seat: Seat): Result<Placed> {
  if (seat.key === null) return noPart;
  const shaft = shaftOfRow(recipe.on.row ?? "", seat);
  if (!shaft.ok) return shaft;
  const { low, high } = shaft.value;
  if (recipe.from + recipe.length > high - low + CONTACT)
    return fail(problems.longerThanItsShaft(), { path: "length" });
  return ok({ step: null, planes: { ...nothing, elements: [] }, thru: false });
}

function placeShell(recipe: Extract<Recipe, { op: "shell" }>, row: string, seat: Seat): Result<Placed> {
  const { kernel, key } = seat;
  if (key === null) return noPart;
  const flats = kernel.flats(key);
  const open: number[] = [];
  for (const plane of recipe.open) {
    const frame = frameOf(plane, seat);
    if (!frame.ok) return frame;
    const { origin, normal } = frame.value;
    const lying = flats.filter(
      (f) => dot(f.normal, normal) > PARALLEL && Math.abs(dot(f.point, normal) - dot(origin, normal)) < CONTACT,
    );
    if (!lying.length) return fail(problems.noFlatToOpen(), { path: "open" });
    open.push(...lying.map((f) => f.face));
  }
  return ok({ step: { op: "shell", row, thick: recipe.thick, open }, planes: nothing, thru: false });
}
