import { heldToText } from "../../../testing/whole-trial/held-to-text";

heldToText("test-array", "whole-trial");
