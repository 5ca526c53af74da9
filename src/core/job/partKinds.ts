/** What a kind of part is called, where, and of how many pieces it may be. */
interface PartKind {
  /** Its word on a card. */
  word: "WORK" | "JAWS" | "PLATE" | "CHUCKJAWS";
  /** The name a new one is given. */
  name: string;
  /** What it is, in a list. */
  what: string;
  /** Numbers of pieces that are no mistake. */
  pieces: number[];
}

/** What a part is for: the workpiece, or what is made to hold it. Pieces of jaws: common practice, no source. */
export const partKinds = {
  work: { word: "WORK", name: "part", what: "a part to be made", pieces: [1] },
  jaws: { word: "JAWS", name: "soft jaws", what: "a pair of soft jaws", pieces: [1, 2] },
  plate: { word: "PLATE", name: "plate", what: "a fixture plate", pieces: [1] },
  chuckJaws: { word: "CHUCKJAWS", name: "chuck jaws", what: "chuck jaws", pieces: [1, 2, 3, 4, 6] },
} as const satisfies Record<string, PartKind>;

export type PartKindId = keyof typeof partKinds;
export const partKindIds = Object.keys(partKinds) as PartKindId[];
