import { heldToText } from "../../../testing/whole-trial/held-to-text";

heldToText("orientation", "whole-trial");
