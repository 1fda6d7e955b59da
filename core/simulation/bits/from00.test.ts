import { testSameBits } from '../../testing/sameBits.ts';

testSameBits(0, 10);
