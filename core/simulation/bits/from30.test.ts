import { testSameBits } from '../../testing/sameBits.ts';

testSameBits(30, 10);
