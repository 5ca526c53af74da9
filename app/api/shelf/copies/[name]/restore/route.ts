import path from "node:path";
import { copyOf } from "@/core/job";
import { copiesFolder, database } from "@/server/database";
import { answer, problemsResponse } from "@/server/http";
import { copyShelf, putBack } from "@/server/shelfCopies";

/** Puts a kept copy in place of the shelf, after a copy of what is there now. */
export const POST = (_: Request, { params }: { params: Promise<{ name: string }> }) =>
  answer(async () => {
    const { name } = await params;
    if (!copyOf(name, 0)) return problemsResponse([{ message: `${name} is no name of a copy` }], 404);
    const db = await database();
    const kept = await copyShelf(db, copiesFolder(), "before-restore", name);
    const back = await putBack(db, path.join(copiesFolder(), name));
    return back.ok ? Response.json({ rows: back.value, kept }) : problemsResponse(back.problems, 422);
  });
