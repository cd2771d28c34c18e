'use client';
/** What is plugged into each port: the far end of its cable, or a host. */
import { useMemo } from 'react';
import type { HostId, LinkId, BridgePortId, SwitchId } from '../../core/model/ids';
import type { Design } from '../../core/model/document';
import { useWorkbench } from './context';

export interface FarEnd {
  /** As people say it: `ridge-b port 3`, `host Duty desk`. */
  readonly text: string;
  readonly link: LinkId | null;
  readonly switch: SwitchId | null;
  readonly port: BridgePortId | null;
  readonly host: HostId | null;
}

const keyOf = (sw: string, port: string): string => `${sw}\n${port}`;

/** Finds far ends in a design. */
export function farEndsOf(design: Design): (sw: SwitchId, port: BridgePortId) => FarEnd | undefined {
  const names = new Map(design.switches.map((sw) => [sw.id, sw.name ?? sw.id]));
  const found = new Map<string, FarEnd>();
  for (const { id, a, b } of design.links) {
    for (const [near, far] of [
      [a, b],
      [b, a],
    ] as const) {
      found.set(keyOf(near.switch, near.port), {
        text: `${names.get(far.switch)} port ${far.port}`,
        link: id,
        switch: far.switch,
        port: far.port,
        host: null,
      });
    }
  }
  for (const host of design.hosts) {
    for (const at of host.attach)
      found.set(keyOf(at.switch, at.port), {
        text: `host ${host.name ?? host.id}`,
        link: null,
        switch: null,
        port: null,
        host: host.id,
      });
  }
  for (const bundle of design.bundles) {
    const far = bundle.ports.flatMap((port) => found.get(keyOf(bundle.switch, port)) ?? []);
    const [first] = far;
    const places = [...new Set(far.map((each) => each.text.replace(/ port .*$/, '')))];
    if (first)
      found.set(keyOf(bundle.switch, bundle.id), {
        ...first,
        link: null,
        text: `${places.join(' and ')}, ${far.length} ${far.length === 1 ? 'cable' : 'cables'}`,
      });
  }
  return (sw, port) => found.get(keyOf(sw, port));
}

/** The far ends of the open design. */
export function useFarEnds(): ReturnType<typeof farEndsOf> {
  const design = useWorkbench((state) => state.design);
  return useMemo(() => farEndsOf(design), [design]);
}
