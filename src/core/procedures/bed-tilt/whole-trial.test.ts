import { heldToText } from "../../../testing/whole-trial/held-to-text";

heldToText("bed-tilt", "whole-trial");
