/** Space at both ends of a ruler, so that what stands at its edges can be taken hold of. */
export const PAD = 10;

/** Opacity as the rulers draw it: against the layer's own peak, so that a faint layer's fade can be read too. */
export const readable = (opacity: number, peak: number): number => (opacity / peak) * (0.35 + 0.65 * peak);
