import { METHODS, Server, type IncomingMessage, type ServerResponse } from "node:http";

const TAKEN = new Set(["GET", "HEAD", "POST", "PUT", "PATCH", "DELETE", "OPTIONS"]);

/**
 * Answers methods that no route has before they reach the framework: it cannot make a request of TRACE or CONNECT and
 * fails over it. It leaves its own server out of reach, so this listens where every server of this process does.
 * @source RFC 9110, 15.5.6 (405 names what is allowed)
 */
export function refuseOtherMethods(): void {
  const heard = Server.prototype.emit as (this: Server, event: string | symbol, ...args: unknown[]) => boolean;
  Server.prototype.emit = function (this: Server, event: string | symbol, ...args: unknown[]): boolean {
    const [request, response] = args as [IncomingMessage?, ServerResponse?];
    if (event !== "request" || !request || !response || TAKEN.has(request.method ?? "GET"))
      return heard.call(this, event, ...args);
    response.writeHead(METHODS.includes(request.method!) ? 405 : 400, {
      "content-type": "application/json",
      allow: [...TAKEN].join(", "),
    });
    response.end(JSON.stringify({ problems: [{ message: `${request.method} is asked of nothing here` }] }));
    return true;
  };
}
