import { useEffect, useState } from "react";

/** Width by height of a picture, once it has arrived. */
export function usePictureShape(address: string | null): number | null {
  const [found, setFound] = useState<{ address: string; shape: number } | null>(null);
  useEffect(() => {
    if (address === null) return;
    const picture = new Image();
    picture.onload = () => {
      if (picture.naturalHeight) setFound({ address, shape: picture.naturalWidth / picture.naturalHeight });
    };
    picture.src = address;
    return () => {
      picture.onload = null;
    };
  }, [address]);
  return found !== null && found.address === address ? found.shape : null;
}
