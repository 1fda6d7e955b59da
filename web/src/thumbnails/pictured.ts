/** Where along the time sheet an effect is pictured. */
export const PICTURED_SHARE = 0.45;
