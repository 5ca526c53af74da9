import { NextResponse, type NextRequest } from "next/server";

const local = new Set([
  "127.0.0.1",
  "localhost",
  "[::1]",
  ...(process.env.SGORBIA_HOSTS ?? "").split(",").filter(Boolean),
]);
const hostOf = (host: string | null) => (host ?? "").replace(/:\d+$/, "");

/** Only this computer's own pages may talk to the server: a foreign Host or Origin is turned away. */
export function proxy(request: NextRequest) {
  const refuse = (message: string) => NextResponse.json({ problems: [{ message }] }, { status: 403 });
  if (!local.has(hostOf(request.headers.get("host")))) return refuse("this address is not one of the workshop’s");
  const origin = request.headers.get("origin");
  if (origin) {
    let host: string;
    try {
      host = new URL(origin).host;
    } catch {
      return refuse("this request comes from nowhere known");
    }
    if (host !== request.headers.get("host")) return refuse("this request comes from another site");
  } else if (
    request.method !== "GET" &&
    request.method !== "HEAD" &&
    request.headers.get("sec-fetch-site") &&
    request.headers.get("sec-fetch-site") !== "same-origin"
  )
    return refuse("this request comes from another site");
  return NextResponse.next();
}
