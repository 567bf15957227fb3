import type { ComponentProps } from "react";

interface Props extends Omit<ComponentProps<"input">, "type" | "onChange"> {
  onPick: (file: File) => void;
}

/** A picker for one file; the same file can be picked again, once it has been mended say. */
export function FileInput({ onPick, ...rest }: Props) {
  return (
    <input
      {...rest}
      type="file"
      onChange={(event) => {
        const [file] = event.target.files ?? [];
        event.target.value = "";
        if (file) onPick(file);
      }}
    />
  );
}
