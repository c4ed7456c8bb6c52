import { heldToText } from "../../../testing/whole-trial/held-to-text";

heldToText("head-turn", "whole-trial");
