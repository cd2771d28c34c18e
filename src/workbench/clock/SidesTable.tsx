export const SidesTable = () => null;
