export const ReachTable = () => null;
