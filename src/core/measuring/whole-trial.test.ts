/** What procedures share, held to the kept texts of some that use it. */
import { heldToText } from "../../testing/whole-trial/held-to-text";

heldToText("axis-scale", "../procedures/axis-scale/whole-trial");
heldToText("kerf", "../procedures/kerf/whole-trial");
heldToText("origin", "../procedures/origin/whole-trial");
heldToText("squareness", "../procedures/squareness/whole-trial");
