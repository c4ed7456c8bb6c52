/** Units as they are kept. Pages that only name them load no schemas. */
import { z } from "zod";
import { UNITS, type UnitId } from "./units";

export const unitIdSchema = z.enum(Object.keys(UNITS) as [UnitId, ...UnitId[]]);
