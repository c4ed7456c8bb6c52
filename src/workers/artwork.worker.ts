/** Adapts a drawing to a kerf, off the page. */
import { adapt } from "../artwork/adapt";
import { workOnDrawings } from "./work-on-drawings";

workOnDrawings(adapt);
