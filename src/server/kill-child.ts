/** Takes readings as fast as it can and says each one that is on disk: made to be killed by the test beside it. */
import { openDatabase } from "../data/database";
import { takeReading } from "./trial-steps";

const [file = "", trial = "0"] = process.argv.slice(2);
const db = openDatabase(file);
for (let i = 0; ; i++) {
  const taken = takeReading(
    db,
    {
      trialId: Number(trial),
      n: 1,
      site: "v300-left",
      input: { kind: "quantity", text: `0.${100 + (i % 800)}`, words: "positive", unit: "mm" },
      from: "typed",
      clientKey: `killed-${process.pid}-${i}`,
    },
    Date.now(),
  );
  process.stdout.write(`${taken.clientKey}\n`);
}
