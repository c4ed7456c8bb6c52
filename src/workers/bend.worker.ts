/** Bends a drawing for a lens, off the page. */
import { bend } from "../artwork/bend";
import { workOnDrawings } from "./work-on-drawings";

workOnDrawings(bend);
