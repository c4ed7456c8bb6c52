import { heldToText } from "../../../testing/whole-trial/held-to-text";

heldToText("ramp", "whole-trial");
