import { useCallback, useMemo } from "react";
import { storeText, useStoredText } from "~/components/common/use-stored";
import { type PictureLook, readPictureLook } from "../model/picture-look";

const KEY = "glad-pan picture";

/** How this browser displays the picture, and a function that changes it. */
export function usePictureLook(): [PictureLook, (change: Partial<PictureLook>) => void] {
  const stored = useStoredText(KEY);
  const look = useMemo(() => readPictureLook(stored), [stored]);
  const change = useCallback(
    (to: Partial<PictureLook>) =>
      storeText(KEY, JSON.stringify({ ...readPictureLook(localStorage.getItem(KEY)), ...to })),
    [],
  );
  return [look, change];
}
