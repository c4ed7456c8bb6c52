import { heldToText } from "../../../testing/whole-trial/held-to-text";

heldToText("scan-offset", "whole-trial");
