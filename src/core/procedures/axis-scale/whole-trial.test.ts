import { heldToText } from "../../../testing/whole-trial/held-to-text";

heldToText("axis-scale", "whole-trial");
