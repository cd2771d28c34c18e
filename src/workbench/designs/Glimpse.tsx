'use client';
/** A small picture of a network in the list of designs, fetched when its row comes into view; drawn in the colours of the page. */
import { useEffect, useRef, useState } from 'react';
import { SIZE, type Glance } from '../../core/analysis/glance/glance';
import { api } from '../state/api';
import { oneAfterAnother } from './oneAfterAnother';
import styles from './designs.module.css';

/** So many are fetched at once: the server looks at large ones one by one. */
const fetched = oneAfterAnother(2);

/** The glance of a design once its row has been in view; null before. */
export function useGlance(
  id: string,
  revision: number,
): readonly [Glance | null, React.RefObject<HTMLLIElement | null>] {
  const row = useRef<HTMLLIElement>(null);
  const [found, setFound] = useState<{ readonly of: string; readonly glance: Glance } | null>(null);
  const key = `${id} ${revision}`;
  useEffect(() => {
    const element = row.current;
    if (!element || !('IntersectionObserver' in window)) return;
    let here = true;
    const isHere = (): boolean => here;
    const observer = new IntersectionObserver(([entry]) => {
      if (!entry?.isIntersecting) return;
      observer.disconnect();
      void fetched(async () => {
        if (!isHere()) return;
        const glance = await api.glance(id);
        if (isHere() && glance.ok) setFound({ of: key, glance: glance.value });
      });
    });
    observer.observe(element);
    return () => {
      here = false;
      observer.disconnect();
    };
  }, [id, key]);
  return [found?.of === key ? found.glance : null, row];
}

export function Glimpse({ glance }: { readonly glance: Glance | null }) {
  return (
    <svg
      className={styles.glimpse}
      width={SIZE.width}
      height={SIZE.height}
      viewBox={`0 0 ${SIZE.width} ${SIZE.height}`}
      aria-hidden="true"
      data-glimpse={glance ? '' : undefined}
    >
      {glance && (
        <>
          <path
            d={glance.links.map(([a, b]) => `M${at(glance, a)}L${at(glance, b)}`).join('')}
            stroke="var(--cable)"
            strokeWidth={glance.links.length > 60 ? 0.6 : 1.2}
            fill="none"
          />
          {[0, 1, 2].map((strength) => (
            <path
              key={strength}
              d={glance.switches
                .filter(([, , own]) => own === strength)
                .map(([x, y]) => boxAt(x, y, glance.switches.length > 60 ? 1.2 + strength : 2.4 + strength))
                .join('')}
              fill={strength === 2 ? 'var(--accent)' : 'var(--ink)'}
            />
          ))}
        </>
      )}
    </svg>
  );
}

const at = ({ switches }: Glance, i: number): string => `${switches[i]![0]} ${switches[i]![1]}`;
const boxAt = (x: number, y: number, half: number): string =>
  `M${x - 1.5 * half} ${y - half}h${3 * half}v${2 * half}h${-3 * half}z`;
