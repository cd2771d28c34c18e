/**
 * A link that loads the whole page. The router's own links would show a design as it was when it was last visited,
 * and an edit on top of an old revision ends in a conflict.
 */
import type { ComponentProps } from 'react';

export const WholePageLink = ({ children, ...props }: ComponentProps<'a'>) => <a {...props}>{children}</a>;
