import { problems } from "./problems";
import type { LengthUnit } from "@/core/number";
import { fail, ok, type Result } from "@/core/base/result";
import type { ReadFile } from "./chainItems";
import { readDxf } from "./dxfOutlines";
import { dxfPicture } from "./dxfPicture";
import { readSvg } from "./svgOutlines";

/** What can be asked of a drawing file: its chains, or a picture of it. */
export type DrawingWish =
  | { want: "chains"; name: string; text: string; unit: LengthUnit; taken?: LengthUnit }
  | { want: "picture"; text: string };
export type DrawingAnswer<W extends DrawingWish> = W extends { want: "chains" }
  ? ReadFile
  : { svg: string; width: number; height: number };

/** Reads a drawing; whatever is in the file, it is an answer or a problem and never an exception. */
export function readDrawing<W extends DrawingWish>(wish: W): Result<DrawingAnswer<W>> {
  try {
    return read(wish) as Result<DrawingAnswer<W>>;
  } catch (e) {
    const why =
      e instanceof RangeError
        ? "it is nested too deeply or too large"
        : e instanceof Error
          ? e.message.slice(0, 120)
          : "unknown";
    return fail(problems.drawingNotRead(why));
  }
}

function read(wish: DrawingWish): Result<DrawingAnswer<DrawingWish>> {
  if (wish.want === "picture") return dxfPicture(wish.text);
  return ok(/\.svg$/i.test(wish.name) ? readSvg(wish.text, wish.unit) : readDxf(wish.text, wish.unit, wish.taken));
}
