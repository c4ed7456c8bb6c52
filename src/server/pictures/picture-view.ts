/** The pictures of a round as the page receives them. */
import type { Db } from "../../data/database";
import { type PictureFacts, picturesOf } from "../../data/pictures";
import { burnedRound, fullTrial } from "../trial/trial-record";

export type { PictureFacts };

export type PictureView = {
  /** Oldest first. */
  pictures: PictureFacts[];
  /** The newest of an earlier round, to hold this one against. */
  earlier: { n: number; picture: PictureFacts } | null;
};

/** @throws Refusal where the round is not burned */
export function pictureView(db: Db, trialId: number, n: number): PictureView {
  const pictures = picturesOf(db, burnedRound(db, trialId, n).id);
  for (const round of fullTrial(db, trialId)
    .rounds.filter((r) => r.n < n)
    .reverse()) {
    const picture = picturesOf(db, round.id).at(-1);
    if (picture) return { pictures, earlier: { n: round.n, picture } };
  }
  return { pictures, earlier: null };
}
