import { releaseWords, type Job } from "@/core/job";

/**
 * A STEP file with a header that says what it is: the job, its revision, and whether that is released.
 * @source ISO 10303-21, 8.2: FILE_DESCRIPTION (description, implementation level) and FILE_NAME (name, time stamp,
 * author, organization, preprocessor, originating system, authorization)
 */
export function withHeader(bytes: Uint8Array, job: Job, fileName: string, now = new Date()): Uint8Array {
  const text = new TextDecoder().decode(bytes);
  const state = releaseWords(job);
  const told = (s: string) =>
    `'${s
      .replace(/[^ -~]/g, "?")
      .replace(/'/g, "''")
      .replace(/\\/g, "/")}'`;
  const head = [
    `FILE_DESCRIPTION((${told(`${job.name}, revision ${job.revision}, ${state}`)}),'2;1');`,
    `FILE_NAME(${told(fileName)},'${now.toISOString().slice(0, 19)}',(${told(job.signOff?.by ?? "")}),(''),'Sgorbia','Sgorbia',${told(state)});`,
  ].join("\n");
  return new TextEncoder().encode(text.replace(/FILE_DESCRIPTION[\s\S]*?(?=FILE_SCHEMA)/, () => `${head}\n`));
}
