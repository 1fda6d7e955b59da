/** Instants of which the picture of each ready layer is made, and steps of the simulation between them. */
export const READY_INSTANTS = 18;
export const READY_EVERY = 4;
