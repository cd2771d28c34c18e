export const OrderTable = () => null;
