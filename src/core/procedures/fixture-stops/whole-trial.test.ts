import { heldToText } from "../../../testing/whole-trial/held-to-text";

heldToText("fixture-stops", "whole-trial");
