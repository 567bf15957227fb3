import { Box } from "@chakra-ui/react";

interface Props {
  /** What goes on, for who listens. */
  label: string;
  /** From 0 to 1; null where nothing is known of it yet. */
  share: number | null;
  width?: string;
}

/** How far something long has come. */
export function ProgressBar({ label, share, width = "100%" }: Props) {
  const percent = share === null ? undefined : Math.floor(100 * share);
  return (
    <Box
      h="5px"
      w={width}
      bg="line"
      mt="1"
      role="progressbar"
      aria-label={label}
      aria-valuemin={0}
      aria-valuemax={100}
      aria-valuenow={percent}
    >
      <Box h="5px" bg="spruce" w={`${percent ?? 0}%`} />
    </Box>
  );
}
