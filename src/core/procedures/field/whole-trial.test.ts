import { heldToText } from "../../../testing/whole-trial/held-to-text";

heldToText("field", "whole-trial");
