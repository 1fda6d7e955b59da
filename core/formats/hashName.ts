import { sha256 } from '@noble/hashes/sha2.js';
import { bytesToHex } from '@noble/hashes/utils.js';

/** The name of an asset: SHA-256 of its canonical bytes, 64 hexadecimal digits. */
export const hashName = (bytes: Uint8Array): string => bytesToHex(sha256(bytes));
