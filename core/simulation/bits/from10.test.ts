import { testSameBits } from '../../testing/sameBits.ts';

testSameBits(10, 10);
