import { heldToText } from "../../../testing/whole-trial/held-to-text";

heldToText("origin", "whole-trial");
