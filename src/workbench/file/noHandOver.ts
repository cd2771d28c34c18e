/** In place of the Hand over view in the page that is one file, which does not show it. */
export { cable as handOver } from '../lenses/cable';
