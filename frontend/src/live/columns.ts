/** What the columns of a table of turning rates made here are, under a name for the time. */
export const columnsOf = (time: string) =>
  ({
    time,
    pan: "pan_deg_s",
    tilt: "tilt_deg_s",
    roll: "roll_deg_s",
    time_unit: "s",
    rate_unit: "deg_s",
    pan_sign: 1,
    tilt_sign: 1,
    roll_sign: 1,
  }) as const;
