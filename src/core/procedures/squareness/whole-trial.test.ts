import { heldToText } from "../../../testing/whole-trial/held-to-text";

heldToText("squareness", "whole-trial");
