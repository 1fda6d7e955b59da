import { PageScreen } from './pageScreen.ts';
import { runWorker } from './runWorker.ts';

// The worker of effects in a scene of the page's own: computes, and hands over what is to be drawn.
runWorker((_, tell) => new PageScreen(tell));
