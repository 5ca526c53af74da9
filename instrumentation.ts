/** Runs once before the server takes its first request: the data folder is its own, or it does not start. */
export async function register() {
  if (process.env.NEXT_RUNTIME !== "nodejs") return;
  const { refuseOtherMethods } = await import("@/server/methods");
  refuseOtherMethods();
  const { takeDataFolder } = await import("@/server/start");
  await takeDataFolder();
}
