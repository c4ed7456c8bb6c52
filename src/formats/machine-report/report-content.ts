/** What a report of a machine says: every setting in force with its uncertainty and its origin, and the state of every procedure. */

export type MachineReport = {
  /** Of the machine. */
  name: string;
  facts: { label: string; value: string }[];
  settings: ReportSetting[];
  procedures: ReportProcedure[];
};

export type ReportSetting = {
  label: string;
  /** Where it is stored. */
  location: string;
  /** With its unit. */
  value: string;
  /** Expanded uncertainty with its unit; empty where the value was not measured. */
  uncertainty: string;
  /** ISO day. */
  date: string;
  /** Trial, and the gauges that it was read with; or how it came there. */
  origin: string;
  /** Of the procedure that corrects it; or that this location still has an old value. */
  state: string;
};

export type ReportProcedure = {
  title: string;
  state: string;
  /** ISO day; empty where it was never done. */
  since: string;
  /** With its uncertainty; empty where there is none. */
  residual: string;
  reasons: string;
};
