/** Where the headless command says what it has to say. */
export interface Say {
  /** To standard output, as it is. */
  text(text: string): void;
  /** The same, as a line. */
  line(text: string): void;
  /** To standard error, as a line. */
  error(text: string): void;
}

/** What the streams of this process are told. */
export const aloud: Say = {
  text: (t) => void process.stdout.write(t),
  line: (t) => void process.stdout.write(`${t}\n`),
  error: (t) => void process.stderr.write(`${t}\n`),
};
