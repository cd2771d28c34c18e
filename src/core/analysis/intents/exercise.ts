/** How much was done in an exercise. */
import { changesBetween } from '../../model/derive/changes';
import type { Design } from '../../model/document';

/** Settings that differ from the state it began with, things that came or went counted as one each: of what trees or runs read. */
export const settingsTouched = (begin: Design, now: Design): number =>
  changesBetween(begin, now).filter(({ node }) => node.facts?.reads !== 'nothing' && node.facts?.reads !== 'layout')
    .length;
