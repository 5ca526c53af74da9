import { listJobs } from "@/server/jobs";
import { Shelf } from "@/ui/shelf/Shelf";

export const dynamic = "force-dynamic";

/** The shelf, with its jobs as the server has them. */
export default async function Page() {
  return <Shelf listed={await listJobs().catch(() => null)} />;
}
