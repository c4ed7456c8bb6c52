import { heldToText } from "../../../testing/whole-trial/held-to-text";

heldToText("focus", "whole-trial");
