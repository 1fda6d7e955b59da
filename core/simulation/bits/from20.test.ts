import { testSameBits } from '../../testing/sameBits.ts';

testSameBits(20, 10);
