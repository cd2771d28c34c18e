import { benchSolver } from './solver';

benchSolver();
