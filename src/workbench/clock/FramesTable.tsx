export const FramesTable = () => null;
