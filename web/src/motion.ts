/** Whether less motion is asked for: then nothing slides, and an effect is opened standing still. */
export const wantsLessMotion = (): boolean => window.matchMedia('(prefers-reduced-motion: reduce)').matches;
