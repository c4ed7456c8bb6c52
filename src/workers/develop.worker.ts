/** Makes a drawing for a round part, off the page. */
import { develop } from "../artwork/develop";
import { workOnDrawings } from "./work-on-drawings";

workOnDrawings(develop);
