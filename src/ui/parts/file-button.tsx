/** A button that chooses a file; the same one can be chosen again. */
export function FileButton({
  label,
  accept,
  busy = false,
  onChoose,
}: {
  label: string;
  accept: string;
  busy?: boolean;
  onChoose: (file: File) => void;
}) {
  return (
    <label className="button cursor-pointer focus-within:outline-2" aria-busy={busy}>
      {label}
      <input
        type="file"
        className="sr-only"
        accept={accept}
        onChange={({ target }) => {
          const [file] = target.files ?? [];
          target.value = '';
          if (file) onChoose(file);
        }}
      />
    </label>
  );
}
