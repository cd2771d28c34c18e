'use client';
/** The map as a picture: as shown or whole, as SVG or PNG. */
import Menu from '@mui/material/Menu';
import MenuItem from '@mui/material/MenuItem';
import { useState } from 'react';
import { KINDS, PARTS, pictureName, savePicture, type Kind, type Part } from '../map/picture/save';
import { useWorkbenchStore } from '../state/context';
import { TextButton } from '../ui/TextButton';

export function PictureMenu() {
  const store = useWorkbenchStore();
  const [at, setAt] = useState<HTMLElement | null>(null);
  const save = async (part: Part, kind: Kind) => {
    setAt(null);
    const refused = await savePicture(store.getState(), part, kind);
    if (refused !== null) store.getState().advise({ text: refused, remedy: null });
  };
  return (
    <>
      <TextButton
        does="plain"
        aria-haspopup="menu"
        aria-expanded={at !== null}
        title="the map as an SVG or PNG file"
        onClick={(event) => setAt(event.currentTarget)}
      >
        Picture
      </TextButton>
      <Menu anchorEl={at} open={at !== null} onClose={() => setAt(null)}>
        {PARTS.flatMap((part) =>
          KINDS.map((kind) => (
            <MenuItem key={`${part} ${kind}`} onClick={() => void save(part, kind)}>
              {pictureName(part, kind)}
            </MenuItem>
          )),
        )}
      </Menu>
    </>
  );
}
