import { database } from "@/server/database";
import { answer } from "@/server/http";

export const dynamic = "force-dynamic";

/** Whether the server has its data folder; `npm start` asks before it says where it is. */
export const GET = () =>
  answer(async () => {
    await database();
    return Response.json({ ready: true });
  });
