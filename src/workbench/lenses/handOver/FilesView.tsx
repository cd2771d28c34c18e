/** Files as they will be saved, one below the other. */
import type { NamedFile } from '../../../core/exchange/settings/forms';
import room from './handOver.module.css';

export const FilesView = ({ files }: { readonly files: readonly NamedFile[] }) => (
  <div className={room.files}>
    {files.map(({ name, text }) => (
      <figure key={name} className={room.file}>
        {files.length > 1 && <figcaption>{name}</figcaption>}
        <pre className={room.text} tabIndex={0} aria-label={name}>
          {text}
        </pre>
      </figure>
    ))}
  </div>
);
