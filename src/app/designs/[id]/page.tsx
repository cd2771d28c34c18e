import { openPage, titleOf, type DesignProps } from './openPage';

export const generateMetadata = (props: DesignProps) => titleOf(props);

export default async function Page(props: DesignProps) {
  return openPage(props, { readOnly: false });
}
