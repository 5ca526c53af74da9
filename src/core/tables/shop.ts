import { z } from "zod";
import { keyOfContent } from "../base/key";
import { fail, ok, type Result } from "../base/result";
import { evaluateNumber, unitOf, type ByFigures, type Figures } from "../number";
import {
  fixtureFigures,
  fixturePractice,
  jawBlanks,
  reliefPlacements,
  type FixturePractice,
  type JawBlank,
  type ReliefPlacement,
} from "./fixtures";
import { defaultLimits, limitOrder, type Limits, type PracticeValue } from "./practice";
import { problems } from "./problems";

/** A figure as the shop typed it, and the unit it was typed in. */
const figureSchema = z.strictObject({ text: z.string().trim().min(1).max(60), unit: z.enum(["mm", "in"]) });
export type ShopFigure = z.infer<typeof figureSchema>;

const limitNames = Object.keys(defaultLimits) as (keyof Limits)[];
const fixtureNames = Object.keys(fixtureFigures) as (keyof FixturePractice)[];

const positive = z.number().positive().max(2000);
/** A blank of a soft jaw; lengths mm. */
export const jawBlankSchema = z
  .strictObject({
    unit: z.enum(["mm", "in"]),
    name: z.string().trim().min(1).max(60),
    length: positive,
    height: positive,
    thickness: positive,
    screwPitch: positive,
    screw: positive,
  })
  .refine((b) => b.screwPitch + b.screw < b.length, { message: "its screws lie within its length" });

/** What a shop has set for itself; what is not there is as it usually is. */
export const shopSettingsSchema = z
  .strictObject({
    limits: z.partialRecord(z.enum(limitNames), figureSchema).default({}),
    fixtures: z
      .strictObject({
        mm: z.partialRecord(z.enum(fixtureNames), figureSchema).default({}),
        in: z.partialRecord(z.enum(fixtureNames), figureSchema).default({}),
      })
      .default({ mm: {}, in: {} }),
    relief: z.enum(reliefPlacements).default("corner"),
    /** The shop's own jaw blanks in place of the usual ones. */
    jawBlanks: z.array(jawBlankSchema).min(1).max(200).nullable().default(null),
  })
  .superRefine((settings, context) => {
    const check = (path: (string | number)[], figure: ShopFigure | undefined, of: Figure) => {
      const read = figure && readFigure(figure, of);
      if (read && !read.ok) context.addIssue({ code: "custom", path, message: read.problems[0].message });
    };
    for (const key of limitNames) check(["limits", key], settings.limits[key], defaultLimits[key]);
    for (const figures of ["mm", "in"] as const)
      for (const key of fixtureNames)
        check(["fixtures", figures, key], settings.fixtures[figures][key], fixtureFigures[key]);
    const value = (key: keyof Limits) => valueOf(settings.limits[key], defaultLimits[key]) ?? defaultLimits[key].value;
    for (const [less, more] of limitOrder) {
      if (value(less) <= value(more)) continue;
      const own = settings.limits[less] ? less : more;
      const message = `"${defaultLimits[less].title}" is over "${defaultLimits[more].title}": one of them never counts`;
      context.addIssue({ code: "custom", path: ["limits", own], message });
    }
    const seen = new Set<string>();
    settings.jawBlanks?.forEach((b, i) => {
      const name = `${b.unit} ${b.name.toLowerCase()}`;
      if (seen.has(name))
        context.addIssue({ code: "custom", path: ["jawBlanks", i, "name"], message: "is there twice" });
      seen.add(name);
    });
  });
export type ShopSettings = z.infer<typeof shopSettingsSchema>;

/** A shop that has set nothing. */
export const noSettings: ShopSettings = shopSettingsSchema.parse({});

/** What is known of a figure: how it is read, and whether it may be nothing. */
type Figure = Pick<PracticeValue, "is" | "orNone">;

/** What tells settings apart in a word; nothing where nothing is set. */
export const shopMark = (settings: ShopSettings): string =>
  keyOfContent(settings) === keyOfContent(noSettings) ? "" : keyOfContent(settings);

/** No figure of a shop is larger than this: mm, mm² or a share. */
const MOST = 1e5;

/** @returns what a figure is worth: mm, mm² or a share; never less than nothing */
export function readFigure({ text, unit }: ShopFigure, { is, orNone }: Figure): Result<number> {
  const scope = { unit, balloon: () => fail(problems.noBalloonsOfAShop()) };
  const read = evaluateNumber(text, is === "length" ? "offset" : "plain", scope);
  if (!read.ok) return read;
  const value = is === "area" ? read.value.value * unitOf[unit].mm ** 2 : read.value.value;
  if (value < 0 || value > MOST) return fail(problems.figureOutOfRange());
  return value > 0 || orNone ? ok(value) : fail(problems.figureOfNothing());
}

/** The figures a shop works with. */
export interface Shop {
  limits: Limits;
  fixtures: ByFigures<FixturePractice>;
  relief: ReliefPlacement;
  jawBlanks: readonly JawBlank[];
}

const OWN = "the shop's own figure";

/** A shop as it is with what it has set for itself; what of that cannot be read counts as not set. */
export function shopOf(settings: ShopSettings): Shop {
  const limits = { ...defaultLimits };
  for (const key of limitNames) {
    const set = valueOf(settings.limits[key], limits[key]);
    if (set !== null) limits[key] = { ...limits[key], value: set, source: OWN };
  }
  const fixtures = (figures: Figures): FixturePractice => {
    const own = { ...fixturePractice[figures] };
    for (const key of fixtureNames) {
      const set = valueOf(settings.fixtures[figures][key], fixtureFigures[key]);
      if (set !== null) own[key] = set;
    }
    return own;
  };
  return {
    limits,
    fixtures: { mm: fixtures("mm"), in: fixtures("in") },
    relief: settings.relief,
    jawBlanks: settings.jawBlanks ?? jawBlanks.rows,
  };
}
function valueOf(figure: ShopFigure | undefined, of: Figure): number | null {
  const read = figure && readFigure(figure, of);
  return read?.ok ? read.value : null;
}

/** The shop where nothing is set. */
export const usualShop: Shop = shopOf(noSettings);
