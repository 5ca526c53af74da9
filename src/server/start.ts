import { database, onFolderLost } from "./database";

/**
 * Opens the data folder before anything is served, and ends this process when the folder is not, or no longer, its
 * own.
 */
export async function takeDataFolder(): Promise<void> {
  const end = (problem: Error) => {
    process.stderr.write(`\n${problem.message}\n`);
    // A moment for the answer that says so.
    setTimeout(() => process.exit(FOLDER_EXIT), 50);
  };
  onFolderLost(end);
  // Started by our own script: it ends with it, so that no server is left behind with the lock.
  if (process.channel) process.on("disconnect", () => process.exit(0));
  try {
    await database();
  } catch (e) {
    process.stderr.write(`\nSgorbia did not start: ${e instanceof Error ? e.message : String(e)}\n`);
    process.exit(FOLDER_EXIT);
  }
}

/** Exit code of a server without its data folder. */
const FOLDER_EXIT = 4;
