'use client';
/** A part of the page that is loaded when it is first shown: one that cannot be loaded says so, is tried again, and takes nothing else down. */
import { useEffect, useState, type ComponentType } from 'react';
import styles from './ui.module.css';
import { tellWaiting } from './loading';

const RETRY_AFTER_MS = 2000;

/** `load` gives the component; `name` tells parts apart. */
export function loadable<P extends object>(name: string, load: () => Promise<ComponentType<P>>): ComponentType<P> {
  let loaded: ComponentType<P> | null = null;
  function Part(props: P) {
    const [Loaded, setLoaded] = useState<ComponentType<P> | null>(() => loaded);
    const [failed, setFailed] = useState(false);
    useEffect(() => {
      if (Loaded) return;
      let gone = false;
      let retry: ReturnType<typeof setTimeout> | undefined;
      const attempt = (): void => {
        load().then(
          (part) => {
            loaded = part;
            tellWaiting(name, false);
            if (!gone) setLoaded(() => part);
          },
          () => {
            if (gone) return;
            setFailed(true);
            tellWaiting(name, true);
            retry = setTimeout(attempt, RETRY_AFTER_MS);
          },
        );
      };
      attempt();
      return () => {
        gone = true;
        clearTimeout(retry);
        tellWaiting(name, false);
      };
    }, [Loaded]);
    if (Loaded) return <Loaded {...props} />;
    return failed ? (
      <p className={styles.waiting} role="status">
        This table cannot be loaded: the server does not answer. Trying again.
      </p>
    ) : null;
  }
  Part.displayName = name;
  return Part;
}
