/** The code of the worker. The build puts it in here, another for each entry of the package (scripts/bundles/player.mjs). */
const code = '';
export default code;
