import { copiesFolder, database } from "@/server/database";
import { answer } from "@/server/http";
import { copyShelf, listCopies } from "@/server/shelfCopies";

export const dynamic = "force-dynamic";

/** The dated copies of the shelf that are kept, and where. */
export const GET = () =>
  answer(async () => Response.json({ copies: await listCopies(copiesFolder()), folder: copiesFolder() }));

/** Makes one now. */
export const POST = () =>
  answer(async () =>
    Response.json({ copy: await copyShelf(await database(), copiesFolder(), "asked") }, { status: 201 }),
  );
