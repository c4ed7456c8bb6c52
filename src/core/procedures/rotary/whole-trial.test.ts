import { heldToText } from "../../../testing/whole-trial/held-to-text";

heldToText("rotary", "whole-trial");
