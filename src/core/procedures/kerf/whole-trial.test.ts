import { heldToText } from "../../../testing/whole-trial/held-to-text";

heldToText("kerf", "whole-trial");
