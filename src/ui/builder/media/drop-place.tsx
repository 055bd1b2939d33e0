'use client';

import { type ReactNode, useState } from 'react';

/** A place where files can be dropped; it says so while some are dragged over it. */
export function DropPlace({
  onFiles,
  disabled = false,
  className = '',
  children,
}: {
  onFiles: (files: File[]) => void;
  disabled?: boolean;
  className?: string;
  children: ReactNode;
}) {
  const [over, setOver] = useState(0);
  if (disabled) return <div className={className}>{children}</div>;
  const holdsFiles = (event: React.DragEvent): boolean =>
    event.dataTransfer.types.includes('Files');
  return (
    <div
      className={`relative ${className}`}
      onDragEnter={(e) => holdsFiles(e) && setOver((n) => n + 1)}
      onDragLeave={(e) => holdsFiles(e) && setOver((n) => Math.max(0, n - 1))}
      onDragOver={(e) => {
        if (holdsFiles(e)) e.preventDefault();
      }}
      onDrop={(e) => {
        if (!holdsFiles(e)) return;
        e.preventDefault();
        setOver(0);
        onFiles([...e.dataTransfer.files]);
      }}
    >
      {children}
      {over > 0 && (
        <div className="pointer-events-none absolute inset-0 z-10 flex items-center justify-center border-2 border-dashed border-spruce bg-white/80">
          <span className="font-semibold">Let go to add the files</span>
        </div>
      )}
    </div>
  );
}

/** A button that lets files be chosen on this machine. */
export function ChooseFiles({
  label,
  accept,
  multiple = true,
  main = false,
  folder = false,
  onFiles,
}: {
  label: string;
  accept: string;
  multiple?: boolean;
  main?: boolean;
  /** Whether a whole folder is chosen. */
  folder?: boolean;
  onFiles: (files: File[]) => void;
}) {
  return (
    <label
      className={`button relative inline-flex cursor-pointer items-center focus-within:outline-2 ${main ? 'button-main' : ''}`}
    >
      {label}
      <input
        type="file"
        className="sr-only"
        accept={accept}
        multiple={multiple}
        {...(folder ? { webkitdirectory: '' } : {})}
        onChange={(e) => {
          onFiles([...(e.target.files ?? [])]);
          e.target.value = ''; // the same file may be chosen again
        }}
      />
    </label>
  );
}
