/**
 * The version of what simulating a document means. The same document, assets, seed and inputs give the same bits in
 * every build of one version. Raise it when the kept hash of `golden/` changes, and say why:
 *
 * | 1 | the first |
 * | 2 | a new curl field; shapers by table; drag that all share summed beforehand; a part of a ride by its screw axis |
 * | 3 | a record carries the upper bits of its particle's key rather than its birth number |
 * | 4 | a ribbon's joints carry the lot of their particle and the ribbon's length; numbers of looks are hashed |
 * | 5 | forces of the effect feel no groups of the layers they act on; speeds and distances that shape grow with a group |
 * | 6 | a tier keeps the first of several births at once, whatever share of them it keeps |
 * | 7 | figures of the stage go where the whole effect is put |
 * | 8 | what is beyond a constraint halves in a time, at any step rate; ribbons have one width, opacity and colour along them |
 * | 9 | a drawn shape has the numbers that it is made of; fronts tell the nearest border too; even births go on beyond 4,096 |
 */
export const SIMULATION = 9;
