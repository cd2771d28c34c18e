'use client';
/** A button by which files are chosen. */
import Button from '@mui/material/Button';
import { useRef } from 'react';

interface Props {
  readonly children: string;
  /** What the files are, for whoever cannot see the button. */
  readonly label: string;
  /** `.csv,.xlsx`. */
  readonly accept: string;
  readonly multiple?: boolean;
  readonly read: (files: readonly File[]) => void;
}

export function FileButton({ children, label, accept, multiple = false, read }: Props) {
  const input = useRef<HTMLInputElement>(null);
  return (
    <>
      <Button size="small" variant="outlined" onClick={() => input.current?.click()}>
        {children}
      </Button>
      <input
        ref={input}
        type="file"
        hidden
        multiple={multiple}
        accept={accept}
        aria-label={label}
        onChange={(event) => {
          read([...(event.target.files ?? [])]);
          event.target.value = '';
        }}
      />
    </>
  );
}
