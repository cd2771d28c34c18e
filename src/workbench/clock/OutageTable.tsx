export const OutageTable = () => null;
