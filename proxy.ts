import { NextResponse, type NextRequest } from "next/server";
import { unkeepableIn, unkeepableWords } from "@/core/base/keepable";

const local = new Set([
  "127.0.0.1",
  "localhost",
  "[::1]",
  ...(process.env.SGORBIA_HOSTS ?? "").split(",").filter(Boolean),
]);
const hostOf = (host: string | null) => (host ?? "").replace(/:\d+$/, "");

/** What is wrong with the text of an address, or null: a job, a file or a word to look for that can be no name. */
function wrongAddress(url: string): string | null {
  let text: string;
  try {
    text = decodeURIComponent(url.replaceAll("+", " "));
  } catch {
    return "this address has a % that stands for nothing";
  }
  const found = unkeepableIn(text);
  return found && unkeepableWords(found);
}

/** Only this computer's own pages may talk to the server: a foreign Host or Origin is turned away. */
export function proxy(request: NextRequest) {
  const refuse = (message: string, status = 403) => NextResponse.json({ problems: [{ message }] }, { status });
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
  const { pathname, search } = request.nextUrl;
  const wrong = wrongAddress(pathname + search);
  return wrong === null ? NextResponse.next() : refuse(wrong, 400);
}
