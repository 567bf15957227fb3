/** The stations in the order of the work, by their address. */
export const STATION_NAMES = {
  brief: "Brief",
  line: "Line",
  options: "Options",
  fit: "Fit",
  loads: "Loads",
  parts: "Parts list",
  build: "Build",
  runs: "Runs",
} as const;

export type StationKey = keyof typeof STATION_NAMES;

export const STATIONS = Object.keys(STATION_NAMES) as StationKey[];
