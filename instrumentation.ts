/** Runs once before the server takes its first request: the data folder is its own, or it does not start. */
export async function register() {
  if (process.env.NEXT_RUNTIME !== "nodejs") return;
  const { takeDataFolder } = await import("@/server/start");
  await takeDataFolder();
}
