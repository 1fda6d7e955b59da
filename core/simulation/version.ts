/**
 * The version of what simulating a document means. The same document, assets, seed and inputs give the same bits in
 * every build of one version. Raise it when the kept hash of `golden/` changes, and say why:
 *
 * | 1 | the first |
 */
export const SIMULATION = 1;
