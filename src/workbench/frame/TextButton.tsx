'use client';
/** A quiet button that reads as underlined text: for small actions beside a sentence. */
import ButtonBase, { type ButtonBaseProps } from '@mui/material/ButtonBase';

export function TextButton({ sx, ...props }: ButtonBaseProps) {
  return (
    <ButtonBase
      {...props}
      sx={{ font: 'inherit', fontWeight: 600, color: 'var(--accent)', borderRadius: '2px', px: '2px', '&:hover': { textDecoration: 'underline' }, '&.Mui-disabled': { opacity: 0.45 }, ...sx }}
    />
  );
}
